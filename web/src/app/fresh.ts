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

/** The server ships another interface than this page: where one is kept it is fetched first, else a reload shows it. */
export async function fetchNewer() {
  const worker = globalThis.navigator.serviceWorker as ServiceWorkerContainer | undefined
  const kept = await worker?.getRegistration().catch(() => undefined)
  const asked = await kept?.update().catch(() => undefined)
  if (!asked) newerIsHere(() => window.location.reload())
}
