import { answer, client } from "../../api/client"

/** A kind with the figures in force. */
export const loadKind = (id: string) =>
  answer(client.GET("/api/kinds/{profile_id}", { params: { path: { profile_id: id } } }))

export type KindData = Awaited<ReturnType<typeof loadKind>>
