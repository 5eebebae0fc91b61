import { useSyncExternalStore } from "react"

const wide = () => window.matchMedia("(min-width: 48rem)") // md, as the styles have it

function heard(changed: () => void) {
  const list = wide()
  list.addEventListener("change", changed)
  return () => list.removeEventListener("change", changed)
}

/** Whether the window is as wide as a desk’s: what only the other width shows need not be drawn. */
export function useWide() {
  return useSyncExternalStore(heard, () => wide().matches)
}
