// What evidence asks for: one change of a pot, every change, trials, seasons, a pair.
import { queryOptions } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"
import { windowed } from "../../api/windowed"

export type PotAnswers = Schemas["PotAnswers"]
export type Chosen = NonNullable<PotAnswers["chosen"]>
export type Help = Chosen["answer"]["result"]
export type Other = Help["shared"][number]
export type Value = Help["treated"][number]
export type TrialPage = Schemas["TrialPage"]
export type Overlay = Schemas["SeasonsPage"]

export const answersQuery = (pot_id: number, change: string, measure: string, beside?: number) =>
  queryOptions({
    queryKey: ["answers", pot_id, change, measure, beside ?? null],
    queryFn: () =>
      answer(
        client.GET("/api/pots/{pot_id}/answers", {
          params: { path: { pot_id }, query: { change, measure, beside } },
        }),
      ),
  })
export const changesQuery = (kind: string) =>
  windowed({
    key: ["answers", "every", kind],
    rows: (page: Schemas["EveryChange"]) => page.answers.length,
    ask: (skip) => answer(client.GET("/api/changes", { params: { query: { kind, skip } } })),
  })
export const reportQuery = (since?: string) =>
  windowed({
    key: ["season-report", since ?? ""],
    rows: (page: Schemas["SeasonReport"]) => page.plants.length,
    ask: (skip) => answer(client.GET("/api/season-report", { params: { query: { since, skip } } })),
  })
export const schoolsQuery = queryOptions({
  queryKey: ["answers", "schools"],
  queryFn: () => answer(client.GET("/api/schools-compared")),
})
export const trialsQuery = queryOptions({
  queryKey: ["trials"],
  queryFn: () => answer(client.GET("/api/trials")),
})
export const trialQuery = (trial_id: number) =>
  queryOptions({
    queryKey: ["trials", trial_id],
    queryFn: () => answer(client.GET("/api/trials/{trial_id}", { params: { path: { trial_id } } })),
  })
export const seasonsQuery = (pot_id: number, by: Overlay["by"]) =>
  queryOptions({
    queryKey: ["answers", "seasons", pot_id, by],
    queryFn: () =>
      answer(
        client.GET("/api/pots/{pot_id}/seasons", { params: { path: { pot_id }, query: { by } } }),
      ),
  })
export const pairQuery = (pot_id: number, beside: number) =>
  queryOptions({
    queryKey: ["answers", "pair", pot_id, beside],
    queryFn: () =>
      answer(
        client.GET("/api/pots/{pot_id}/pair", { params: { path: { pot_id }, query: { beside } } }),
      ),
  })
