import { answer, client } from "../../api/client"

/** A kind with the figures in force; those of one plant where it is named. */
export const loadKind = (id: string, plant_id?: number) =>
  answer(
    client.GET("/api/kinds/{profile_id}", {
      params: { path: { profile_id: id }, query: { plant_id } },
    }),
  )

export type KindData = Awaited<ReturnType<typeof loadKind>>
