// What is asked of an ill plant: signs, causes, checks, cases.
import { queryOptions } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"

export type Wrong = Schemas["WrongPage"]
export type Likely = Schemas["LikelyCause"]
export type CheckStep = Schemas["CheckStep"]

export const wrongQuery = (pot_id: number) =>
  queryOptions({
    queryKey: ["wrong", pot_id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/wrong", { params: { path: { pot_id } } })),
  })
export const checksQuery = queryOptions({
  queryKey: ["checks"],
  queryFn: () => answer(client.GET("/api/checks")),
  staleTime: Infinity,
})
export const causesQuery = queryOptions({
  queryKey: ["causes"],
  queryFn: () => answer(client.GET("/api/causes")),
})
