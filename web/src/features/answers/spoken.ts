// What the drawings of the answers say to whoever cannot see them.
import type { Schemas } from "../../api/client"
import { amount, day, figure } from "../../ui/format"
import type { Chosen, Overlay, TrialPage, Value } from "./queries"
import { change, range } from "./words"

type Row = { name: string; low_shown: number; high_shown: number }

/** A value with its day, of each leaf or look drawn. */
export const spokenValues = (values: Value[], none: string, leafy: boolean) =>
  values.map((v) => `${day(v.on)} ${leafy ? amount(v.value, "mm") : figure(v.value)}`).join(", ") ||
  none

/** Each answer of a question with its range, then all of them together. */
export function spokenForest(rows: Row[], together: Omit<Row, "name">, unit: string): string {
  const each = rows.map((r) => `${r.name}: ${range(r.low_shown, r.high_shown, unit)}`)
  return `${each.join("; ")}. Together ${range(together.low_shown, together.high_shown, unit)}`
}

/** What was measured, what comes by itself, what is believable, and what so many pairs would show. */
export function spokenRuler(r: Chosen["answer"]["result"], itself: number, unit: string): string {
  const sight = r.sight.map((s) => `${s.pairs} pairs show ${Math.round(s.percent)} ${unit}`)
  return [
    `Measured ${change(r.measured_shown, unit)}`,
    `by itself ${change(itself, unit)}`,
    `believable ${range(r.low_shown, r.high_shown, unit)}, 80 in 100. ${sight.join(", ")}.`,
  ].join("; ")
}

/** The difference of a pair, and whether it counts yet. */
export function spokenPair(told: TrialPage["answer"]["pairs"][number], unit: string): string {
  const a = told.answer
  const counts = told.counts ? "counts" : "does not count yet"
  const believable = range(a.low_shown, a.high_shown, unit)
  return `Measured ${change(a.measured_shown, unit)}, believable ${believable}, ${counts}`
}

/** A season: nitrogen poured, heights by day, leaves. */
export function spokenSeason(
  season: Overlay["seasons"][number],
  sum: Overlay["totals"][number] | undefined,
): string {
  const nitrogen = sum ? `${figure(sum.nitrogen_mg)} mg nitrogen in ${sum.feeds} feeds` : "no total"
  const heights = (season.heights ?? [])
    .map((h) => `day ${h.day} ${amount(h.value, "cm")}`)
    .join(", ")
  const leaves = (season.leaves ?? []).length
  return `${season.name}: ${nitrogen}; heights ${heights || "not measured"}; ${leaves} leaves`
}

/** Since when a trial runs and until when, or when it ended. */
export const runs = (row: Schemas["TrialRow"], today?: string) =>
  row.running
    ? `Runs since ${day(row.started_on, today)}, judged on ${day(row.ends_on, today)}`
    : `Ended ${day(row.ended_on ?? row.ends_on, today)}`
