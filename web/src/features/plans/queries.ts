import { queryOptions } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"

export const plansQuery = queryOptions({
  queryKey: ["plans"],
  queryFn: () => answer(client.GET("/api/plans")) as Promise<Schemas["PlanOut"][]>,
})
export const startsQuery = queryOptions({
  queryKey: ["plans", "starts"],
  queryFn: () => answer(client.GET("/api/plans/starts")) as Promise<Schemas["PlanStart"][]>,
})
export const kindsQuery = queryOptions({
  queryKey: ["kinds", "list"],
  queryFn: () => answer(client.GET("/api/kinds")),
})
export const placesQuery = queryOptions({
  queryKey: ["places"],
  queryFn: () => answer(client.GET("/api/places")),
})
