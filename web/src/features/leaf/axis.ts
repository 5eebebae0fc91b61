// One time axis for every line: how far back it looks, and a look ahead for the leaf that is expected.
import { scaleTime, type ScaleTime } from "d3-scale"

const AHEAD_DAYS = 90
const DAY_MS = 86_400_000

export const asDay = (iso: string) => new Date(`${iso}T00:00:00Z`)

/** Left and right end of the lines: months back from today, never before the records begin. */
export function spanOf(today: string, since: string, months: number): [Date, Date] {
  const end = asDay(today)
  const start = new Date(end)
  start.setUTCMonth(start.getUTCMonth() - months)
  const first = asDay(since)
  return [start < first ? first : start, new Date(end.getTime() + AHEAD_DAYS * DAY_MS)]
}

export const axisOf = (span: [Date, Date], width: number): ScaleTime<number, number> =>
  scaleTime()
    .domain(span)
    .range([4, width - 4])
