import { useQueryClient } from "@tanstack/react-query"
import { useCallback } from "react"
import { askAnew } from "../api/askAnew"
import { ofOnePot } from "../api/queries"
import { answer, client, keyed, type Schemas } from "../api/client"
import { newKey } from "../api/keys"

export type LogKind = Schemas["Done"]["kind"]

/** Takes a logged row back: it is archived, not deleted. */
export function useUndo() {
  const queries = useQueryClient()
  return useCallback(
    (kind: LogKind, id: number, restore = false) => {
      const params = { ...keyed(newKey()), path: { kind, row_id: id } }
      const call = restore
        ? answer(client.POST("/api/log/{kind}/{row_id}/restore", { params }))
        : answer(client.POST("/api/log/{kind}/{row_id}/archive", { params }))
      // what is archived has no page of its own any more: asking for it again would only be refused
      const gone = (key: readonly unknown[]) =>
        !restore &&
        ((kind === "pot" && ofOnePot(key)) ||
          (kind === "trial" && key[0] === "trials" && key[1] === id))
      void call.then(() => askAnew(queries, { predicate: (q) => !gone(q.queryKey) }))
    },
    [queries],
  )
}
