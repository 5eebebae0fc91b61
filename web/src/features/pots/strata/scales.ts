// Time and salt axes of the strata, and the days the cursor stops at.
import { scaleLog, scaleTime } from "d3-scale"
import type { Schemas } from "../../../api/client"

export type Window = { from: Date; to: Date }
export const GUTTER = 118
export const asDate = (iso: string) => new Date(`${iso}T12:00:00Z`)

export function windowOf(page: Schemas["PotPage"], months: number): Window {
  const to = asDate(page.today)
  const ahead = Math.min(60, months * 9)
  const from = new Date(to.getTime() - months * 30.4 * 86_400_000)
  const first = [page.pours[0]?.on, page.looks[0]?.on, page.phases[0]?.since]
    .filter((d) => d !== undefined)
    .map(asDate)
  const start = new Date(
    Math.max(
      from.getTime(),
      Math.min(...first.map((d) => d.getTime()), to.getTime() - 14 * 86_400_000),
    ),
  )
  return { from: start, to: new Date(to.getTime() + ahead * 86_400_000) }
}

export const timeScale = (w: Window, width: number, gutter: number) =>
  scaleTime()
    .domain([w.from, w.to])
    .range([gutter, width - 12])

export function saltScale(page: Schemas["PotPage"], top: number, bottom: number) {
  const values = [
    page.row.ceiling_uS_cm * 1.4,
    page.row.ideal_low_uS_cm * 0.7,
    ...page.root_zone.history.map((p) => p.reading),
  ].filter((v) => v > 0)
  return scaleLog()
    .domain([Math.max(5, Math.min(...values) * 0.8), Math.max(...values) * 1.15])
    .range([bottom, top])
    .clamp(true)
}

/** Days on which anything happened, in order: the arrow keys walk them. */
export function stops(page: Schemas["PotPage"], w: Window): string[] {
  const days = new Set([
    ...page.pours.map((p) => p.on),
    ...page.looks.map((l) => l.on),
    ...page.events.map((e) => e.on),
    page.today,
  ])
  return [...days].filter((d) => asDate(d) >= w.from && asDate(d) <= w.to).sort()
}

export function nearest(days: string[], to: Date): string | undefined {
  let best: string | undefined
  for (const d of days)
    if (
      best === undefined ||
      Math.abs(asDate(d).getTime() - to.getTime()) < Math.abs(asDate(best).getTime() - to.getTime())
    )
      best = d
  return best
}
