// Numbers and dates as shown. Unit factors come from the server; nothing is computed here but value * factor + offset.
import type { Schemas } from "../api/client"

export type QuantityKind = "ec" | "temperature" | "volume" | "mass" | "plain"
export type Display = Schemas["SettingsOut"]["display"]

const BASE: Record<QuantityKind, string> = {
  ec: "µS/cm",
  temperature: "°C",
  volume: "L",
  mass: "g",
  plain: "",
}

/** A number with thin spaces between thousands, at most `digits` significant figures, no exponent. */
export function figure(value: number, digits = 3): string {
  const whole = Math.abs(value) >= 10 ** (digits - 1)
  const text = new Intl.NumberFormat(
    "en-GB",
    whole ? { maximumFractionDigits: 0 } : { maximumSignificantDigits: digits },
  ).format(value)
  return text.replace(/,/g, "\u202f").replace("-", "\u2212")
}

/** Value and unit in the user's choice of units. */
export function shown(
  value: number,
  kind: QuantityKind,
  display?: Display,
): { text: string; unit: string } {
  const d = kind === "plain" ? undefined : display?.[kind]
  const converted = d ? value * d.factor + d.offset : value
  const digits = kind === "ec" && (d?.factor ?? 1) === 1 ? (Math.abs(converted) < 10 ? 2 : 2) : 3
  const text =
    kind === "ec" && (d?.factor ?? 1) === 1 && Math.abs(converted) >= 10
      ? figure(Math.round(converted), 6)
      : figure(converted, digits)
  return { text, unit: d?.unit ?? BASE[kind] }
}

/** A day, with its year when it is not this year's. */
export function day(iso: string, today?: string): string {
  const date = new Date(`${iso}T12:00:00Z`)
  const sameYear = today === undefined || iso.slice(0, 4) === today.slice(0, 4)
  return date.toLocaleDateString("en-GB", {
    day: "numeric",
    month: "short",
    year: sameYear ? undefined : "numeric",
    timeZone: "UTC",
  })
}

/** "today", "yesterday", "5 days ago". */
export function ago(days: number): string {
  return days === 0 ? "today" : days === 1 ? "yesterday" : `${days} days ago`
}

/** Millilitres below a litre, litres above. */
export function pourVolume(mL: number): string {
  return mL < 1000 ? `${figure(mL)} mL` : `${figure(mL / 1000)} L`
}

/** A water's reading in words: not measured is not zero. */
export const waterReads = (w: { ec25_uS_cm: number | null }) =>
  w.ec25_uS_cm === null ? "not measured" : `${figure(Math.round(w.ec25_uS_cm), 6)} µS/cm`

/** A predicted conductivity with its range, to the whole µS/cm. */
export function expected(low_uS_cm: number, high_uS_cm: number): string {
  return `${Math.round(low_uS_cm)} to ${Math.round(high_uS_cm)} µS/cm`
}
