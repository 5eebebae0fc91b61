// The interface kept in the browser, so that the bench opens with Fenwa out of reach. Only where the link is trusted:
// on this machine, or encrypted.
import { registerSW } from "virtual:pwa-register"
import { onOtherInterface } from "../api/served"
import { newerIsHere } from "./fresh"

/** Starts keeping the interface; asks for a newer one at each start. */
export function keepInterface() {
  const update = registerSW({
    immediate: true,
    onNeedRefresh: () => newerIsHere(() => void update(true)),
  })
  onOtherInterface(() => void fetchNewer())
}

/** The server ships another interface than this page: where one is kept it is fetched first, else a reload shows it. */
export async function fetchNewer() {
  const kept = await globalThis.navigator.serviceWorker?.getRegistration()
  if (kept) await kept.update()
  else newerIsHere(() => window.location.reload())
}
