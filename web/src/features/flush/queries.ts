// What the Flush station asks for: the station, a pot's ways, schools and lessons, a running flush.
import { queryOptions } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"
import { lastKnown } from "../../api/lastKnown"
import { windowed } from "../../api/windowed"

const [FIRST, MORE] = [14, 60] // pots a desk shows at once, and what each press adds
export const flushStationQuery = (kind: string) =>
  windowed({
    key: ["flush", "station", kind],
    rows: (page: Schemas["FlushPage"]) => page.pots.length,
    ask: (skip) =>
      lastKnown(`flush-${kind}-${skip}`, () =>
        answer(
          client.GET("/api/flush", {
            params: { query: { kind, skip, count: skip === 0 ? FIRST : MORE } },
          }),
        ),
      ),
  })
export const rinseCalendarQuery = queryOptions({
  queryKey: ["flush", "calendar"],
  queryFn: () => answer(client.GET("/api/flush/calendar")),
})
export type WhatIf = Schemas["ChangesPage"]["change"]
export const yearsQuery = (change: WhatIf, kind: string, ids: string) =>
  queryOptions({
    queryKey: ["flush", "years", change, kind, ids],
    queryFn: () =>
      answer(client.GET("/api/flush/changes", { params: { query: { change, kind, ids } } })),
    placeholderData: (before) => before,
  })
export const schoolsTogetherQuery = (kind: string) =>
  queryOptions({
    queryKey: ["flush", "schools", kind],
    queryFn: () => answer(client.GET("/api/flush/schools", { params: { query: { kind } } })),
  })
const of = (id: number) => ({ params: { path: { pot_id: id } } })
export const waysQuery = (id: number, water: string) =>
  queryOptions({
    queryKey: ["pots", "ways", id, water],
    queryFn: () =>
      lastKnown(`flush-ways-${id}-${water}`, () =>
        answer(
          client.GET("/api/pots/{pot_id}/flush-ways", {
            params: { path: { pot_id: id }, query: water ? { water } : {} },
          }),
        ),
      ),
  })
export const schoolsQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "schools", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/flush-schools", of(id))),
  })
export const rhythmQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "rhythm", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/rhythm-change", of(id))),
  })
export const calibrationQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "calibration", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/calibration", of(id))),
  })
export const readingsQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "readings", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/readings", of(id))),
  })
export const historyQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "flushes", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/flushes", of(id))),
  })
export const reservoirQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "reservoir", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/reservoir", of(id))),
  })
export const changesQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "changes", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/water-changes", of(id))),
  })

/** Where a flush begins, and where the passes go of one that Fenwa has not answered yet. */
export const beginPath = (potId: number) =>
  "/api/pots/{pot_id}/flushes".replace("{pot_id}", String(potId))
export const PASSES_OF_BEGUN = "/api/flushes/{flush_id}/passes".replace("{flush_id}", "{from}")

/** Where the passes of a flush are sent. */
export const passesPath = (id: number) =>
  "/api/flushes/{flush_id}/passes".replace("{flush_id}", String(id))

/** A running flush; out of reach of Fenwa, as it stood when it was last seen here. */
export const flushQuery = (id: number) =>
  queryOptions({
    queryKey: ["flush", "session", id],
    queryFn: () =>
      lastKnown(`flush-${id}`, () =>
        answer(client.GET("/api/flushes/{flush_id}", { params: { path: { flush_id: id } } })),
      ),
  })
