// Sends what waits in this browser, and lets every page ask anew once something has arrived.
import { useQueryClient } from "@tanstack/react-query"
import { useEffect, useSyncExternalStore } from "react"
import { askAnew } from "../api/askAnew"
import { arrived, start, subscribe } from "../api/outbox"

export function useOutbox() {
  const queries = useQueryClient()
  const count = useSyncExternalStore(subscribe, arrived)
  useEffect(start, [])
  useEffect(() => {
    if (count > 0) void askAnew(queries)
  }, [count, queries])
}
