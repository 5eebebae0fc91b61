// The desk's keys in the walk: what a button is for is written on the button as data-key.
import { useEffect } from "react"

export function useStepKeys() {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return
      const at = e.target as HTMLElement
      if (
        e.key !== "Escape" &&
        (at.matches("input, textarea, select") || (e.key === "Enter" && at.matches("button, a")))
      )
        return
      const key = e.key === "=" ? "+" : e.key
      const wanted = document.querySelector<HTMLElement>(`[data-key="${CSS.escape(key)}"]`)
      if (!wanted) return
      e.preventDefault()
      wanted.click()
    }
    window.addEventListener("keydown", onKey)
    return () => window.removeEventListener("keydown", onKey)
  }, [])
}
