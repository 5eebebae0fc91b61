// What every screen reads: options, settings, stations, working.
import { queryOptions, useQuery } from "@tanstack/react-query"
import { answer, client, type Schemas } from "./client"
import { lastKnown } from "./lastKnown"

export const stationsQuery = queryOptions({
  queryKey: ["stations"],
  queryFn: () => lastKnown("stations", () => answer(client.GET("/api/stations"))),
})
export const optionsQuery = queryOptions({
  queryKey: ["options"],
  queryFn: () => lastKnown("options", () => answer(client.GET("/api/options"))),
  staleTime: Infinity,
})
export const settingsQuery = queryOptions({
  queryKey: ["settings"],
  queryFn: () => lastKnown("settings", () => answer(client.GET("/api/settings"))),
})
export const potsQuery = queryOptions({
  queryKey: ["pots", "list"],
  queryFn: () => lastKnown("pots", () => answer(client.GET("/api/pots"))),
})
/** What is asked of one pot: an archived pot has no page to ask for. */
export const ofOnePot = (key: readonly unknown[]) =>
  key[1] === "one" || (key[0] === "pots" && typeof key[2] === "number")
export const waterQuery = queryOptions({
  queryKey: ["water"],
  queryFn: () => lastKnown("water", () => answer(client.GET("/api/water"))),
})
export const mixQuery = queryOptions({
  queryKey: ["mix"],
  queryFn: () => answer(client.GET("/api/mix")),
})
export const forPotsQuery = (pot_ids: number[]) =>
  queryOptions({
    queryKey: ["mix", "pots", pot_ids],
    queryFn: () => answer(client.POST("/api/mix/pots", { body: { pot_ids } })),
  })
export const shelfQuery = queryOptions({
  queryKey: ["shelf"],
  queryFn: () => answer(client.GET("/api/shelf")),
})
export const bottlesQuery = queryOptions({
  queryKey: ["bottles"],
  queryFn: () => answer(client.GET("/api/mix/bottles")),
})
export const roundQuery = queryOptions({
  queryKey: ["round"],
  queryFn: () => lastKnown("round", () => answer(client.GET("/api/round"))),
})
export const lanQuery = queryOptions({
  queryKey: ["lan"],
  queryFn: () => answer(client.GET("/api/lan")),
})
export const roundOnQuery = (on?: string) =>
  queryOptions({
    queryKey: ["round", on ?? "today"],
    queryFn: () => answer(client.GET("/api/round", { params: { query: { on } } })),
  })
export const daysQuery = queryOptions({
  queryKey: ["days"],
  queryFn: () => answer(client.GET("/api/days")),
})
export const awayQuery = (leaving: string, back: string) =>
  queryOptions({
    queryKey: ["away", leaving, back],
    queryFn: () => answer(client.GET("/api/away", { params: { query: { leaving, back } } })),
  })
export const probesQuery = queryOptions({
  queryKey: ["probes"],
  queryFn: () => answer(client.GET("/api/probes")),
})
export const peopleQuery = queryOptions({
  queryKey: ["people"],
  queryFn: () => answer(client.GET("/api/people")),
})
export const timersQuery = queryOptions({
  queryKey: ["timers"],
  queryFn: () => answer(client.GET("/api/timers")),
  refetchInterval: 20_000,
})
export const potQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "one", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}", { params: { path: { pot_id: id } } })),
  })

export const useSettings = () => useQuery(settingsQuery).data
export const useOptions = () => useQuery(optionsQuery).data

export type Working = Schemas["Working"]
/** Where a number's working comes from: at hand, or fetched when asked for. */
export type WorkingSource =
  { kind: "here"; working: Working } | { kind: "fetch"; key: string; load: () => Promise<Working> }
