// The interface kept in the browser, so that the bench opens with Fenwa out of reach. Only where the link is trusted:
// on this machine, or encrypted.
import { registerSW } from "virtual:pwa-register"
import { onOtherInterface } from "../api/served"
import { fetchNewer, newerIsHere } from "./fresh"

const FIRST_PICTURE_ms = 2000 // where a browser does not say when it has nothing to do

/** Starts keeping the interface once the page stands; asks for a newer one at each start. */
export function keepInterface() {
  onOtherInterface(() => void fetchNewer())
  const keep = () => {
    const update = registerSW({
      immediate: true,
      onNeedRefresh: () => newerIsHere(() => void update(true)),
    })
  }
  if ("requestIdleCallback" in window) window.requestIdleCallback(keep, { timeout: 10_000 })
  else setTimeout(keep, FIRST_PICTURE_ms)
}
