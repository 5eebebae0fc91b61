// The interface kept in the browser, so that the bench opens with Fenwa out of reach. Only where the link is trusted:
// on this machine, or encrypted.
import { registerSW } from "virtual:pwa-register"
import { onOtherInterface } from "../api/served"
import { fetchNewer, newerIsHere } from "./fresh"

/** Starts keeping the interface; asks for a newer one at each start. */
export function keepInterface() {
  const update = registerSW({
    immediate: true,
    onNeedRefresh: () => newerIsHere(() => void update(true)),
  })
  onOtherInterface(() => void fetchNewer())
}
