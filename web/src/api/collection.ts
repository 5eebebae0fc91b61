// Which collection this browser works on: the server says it by a cookie of its own port.
import { answer, client } from "./client"

/** Whether this browser looks around in the demonstration. */
export const looking = () => document.cookie.includes(`fenwa_look_${window.location.port}=`)

const SWITCHED = "fenwa-switched"

/** Other tabs share the cookie: what they show would be of the other collection. */
export function reloadWhenSwitched() {
  const reload = (e: StorageEvent) => e.key === SWITCHED && window.location.assign("/")
  window.addEventListener("storage", reload)
  return () => window.removeEventListener("storage", reload)
}

function begunAnew() {
  localStorage.setItem(SWITCHED, String(Date.now()))
  window.location.assign("/")
}

/** Shows the demonstration; the own collection stays as it is. */
export const lookAround = () => answer(client.POST("/api/demonstration")).then(begunAnew)

/** Shows the own collection again. */
export const goBack = () => answer(client.DELETE("/api/demonstration")).then(begunAnew)
