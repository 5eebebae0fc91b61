// What every screen reads: options, settings, stations, working.
import { queryOptions, useQueries, useQuery } from "@tanstack/react-query"
import { answer, client, type Schemas } from "./client"
import { lastKnown, remember } from "./lastKnown"
import { windowed } from "./windowed"

export const stationsQuery = queryOptions({
  queryKey: ["stations"],
  queryFn: () => lastKnown("stations", () => answer(client.GET("/api/stations"))),
})
/** Asked again while logs are read anew; else once. */
export const foldingQuery = queryOptions({
  queryKey: ["folding"],
  queryFn: () => answer(client.GET("/api/folding")),
  refetchInterval: (query) => (query.state.data?.sentence ? 3_000 : false),
  staleTime: Infinity,
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
/** Pots in walking order, as far as they are shown; found by every word of `find`. */
export const potsQuery = (find = "") =>
  windowed({
    key: ["pots", "list", find],
    rows: (page: Schemas["PotsPage"]) => page.pots.length,
    ask: (skip) => {
      const ask = () => answer(client.GET("/api/pots", { params: { query: { find, skip } } }))
      return find ? ask() : lastKnown(`pots-${skip}`, ask)
    },
  })
/** The first pot that every word is found in: asked at once, the list may still be of the words before. */
export const firstFound = (find: string) =>
  answer(client.GET("/api/pots", { params: { query: { find, count: 1 } } })).then((p) => p.pots[0])

const MOST_ROWS = 200
const potRowsQuery = (ids: readonly number[]) => {
  const query = { ids: ids.join(","), count: MOST_ROWS }
  return queryOptions({
    queryKey: ["pots", "rows", query.ids],
    queryFn: () =>
      lastKnown(`pot-rows-${query.ids}`, () =>
        answer(client.GET("/api/pots", { params: { query } })).then((page) => page.pots),
      ),
  })
}
/** Rows of the pots named, in walking order; undefined while one of them is on its way. */
export function usePotRows(ids: readonly number[]): Schemas["PotRow"][] | undefined {
  const pieces = Array.from({ length: Math.ceil(ids.length / MOST_ROWS) }, (_, i) =>
    ids.slice(i * MOST_ROWS, (i + 1) * MOST_ROWS),
  )
  const found = useQueries({ queries: pieces.map(potRowsQuery) })
  const rows = found.flatMap((q) => q.data ?? [])
  return found.every((q) => q.data) ? rows : undefined
}
/** Every pot by code and name: what a form chooses from. */
export const potNamesQuery = queryOptions({
  queryKey: ["pots", "names"],
  queryFn: () => answer(client.GET("/api/pots/names")),
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
/** All of today's round, as it is walked. */
export const roundQuery = queryOptions({
  queryKey: ["round", "whole"],
  queryFn: () => lastKnown("round", () => answer(client.GET("/api/round"))),
})
/** What a screen shows at first of it; in all but the largest collections that is the whole. */
export const roundFirstQuery = queryOptions({
  queryKey: ["round", "first"],
  queryFn: () =>
    lastKnown("round-first", async () => {
      const page = await answer(client.GET("/api/round", { params: { query: { rows: 40 } } }))
      if (isWhole(page)) void remember("round", page)
      return page
    }),
})
export const isWhole = ({ left }: Schemas["RoundPage"]) =>
  left.cans + left.looks + left.jobs + Object.keys(left.pots).length === 0
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

export const startQuery = queryOptions({
  queryKey: ["start"],
  queryFn: () => answer(client.GET("/api/start")),
})
