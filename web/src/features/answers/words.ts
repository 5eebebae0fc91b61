// How differences are written: a sign that can be read, and the unit of the measure.
import { figure } from "../../ui/format"

export const GRADES = ["too early", "a hint", "weak", "fair", "firm"] as const

/** A difference with its sign and unit: +6 %, −15 %. */
export function change(value: number | null, unit: string): string {
  if (value === null) return "not measured"
  const text = figure(Math.abs(value), 2)
  return `${value < 0 ? "\u2212" : "+"}${text} ${unit}`
}

/** A range of differences: −15 to +24 %. */
export const range = (low: number | null, high: number | null, unit: string) =>
  low === null || high === null ? "" : `${change(low, "").trim()} to ${change(high, unit)}`
