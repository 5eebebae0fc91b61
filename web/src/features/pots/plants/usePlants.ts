import { queryOptions, useQuery } from "@tanstack/react-query"
import { answer, client } from "../../../api/client"

const plantsQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "one", id, "plants"],
    queryFn: () =>
      answer(client.GET("/api/pots/{pot_id}/plants", { params: { path: { pot_id: id } } })),
  })

/** Plants of a pot, the leading one first. */
export const usePlants = (id: number) => useQuery(plantsQuery(id)).data
