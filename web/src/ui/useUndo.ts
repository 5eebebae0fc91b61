import { answer, client, keyed, type Schemas } from "../api/client"
import { useRefreshAll } from "./useEntryForm"

export type LogKind = Schemas["Done"]["kind"]

/** Takes a logged row back: it is archived, not deleted. */
export function useUndo() {
  const refresh = useRefreshAll()
  return (kind: LogKind, id: number, restore = false) => {
    const params = { ...keyed(crypto.randomUUID()), path: { kind, row_id: id } }
    const call = restore ? answer(client.POST("/api/log/{kind}/{row_id}/restore", { params })) : answer(client.POST("/api/log/{kind}/{row_id}/archive", { params }))
    void call.then(refresh)
  }
}
