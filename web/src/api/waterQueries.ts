// What the Water station's panels read.
import { queryOptions, useQuery } from "@tanstack/react-query"
import { answer, client } from "./client"

export const metersQuery = queryOptions({
  queryKey: ["meters"],
  queryFn: () => answer(client.GET("/api/meters")),
})
export const reportsQuery = queryOptions({
  queryKey: ["reports"],
  queryFn: () => answer(client.GET("/api/reports")),
})
export const quantitiesQuery = queryOptions({
  queryKey: ["quantities"],
  queryFn: () => answer(client.GET("/api/quantities")),
  staleTime: Infinity,
})
export const kindsQuery = queryOptions({
  queryKey: ["water-kinds"],
  queryFn: () => answer(client.GET("/api/water-kinds")),
  staleTime: Infinity,
})
export const inboxQuery = queryOptions({
  queryKey: ["inbox"],
  queryFn: () => answer(client.GET("/api/inbox")),
})
export const acidsQuery = queryOptions({
  queryKey: ["acids"],
  queryFn: () => answer(client.GET("/api/water/acids")),
})
export const shareQuery = (blend: boolean) =>
  queryOptions({
    queryKey: ["share-out", blend],
    queryFn: () => answer(client.GET("/api/water/share-out", { params: { query: { blend } } })),
  })
export const membraneQuery = (id: number) =>
  queryOptions({
    queryKey: ["membrane", id],
    queryFn: () =>
      answer(client.GET("/api/water/membrane/{water_id}", { params: { path: { water_id: id } } })),
  })
export const remediesQuery = (id: number) =>
  queryOptions({
    queryKey: ["remedies", id],
    queryFn: () =>
      answer(client.GET("/api/waters/{water_id}/remedies", { params: { path: { water_id: id } } })),
  })
export const penQuery = queryOptions({
  queryKey: ["pen"],
  queryFn: () => answer(client.GET("/api/pen")),
})

export const useQuantities = () => useQuery(quantitiesQuery).data ?? []
