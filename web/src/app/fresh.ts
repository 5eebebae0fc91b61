// A newer interface that waits to be shown.
let show: (() => void) | undefined
const listeners = new Set<() => void>()

/** A newer one has been fetched; `reload` shows it. */
export function newerIsHere(reload: () => void) {
  show = reload
  listeners.forEach((l) => l())
}
export const isFresh = () => show !== undefined
export const showFresh = () => show?.()
export function subscribeFresh(listener: () => void) {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}
