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

type DateOrder = NonNullable<Schemas["SettingsOut"]["date_order"]>
const KINDS = {
  "µS/cm": "ec",
  "°C": "temperature",
  L: "volume",
  g: "mass",
  cm: "length",
  mm: "length",
} as const
export type Unit = keyof typeof KINDS

// how this browser's reader reads; set whenever the settings arrive, before any page is shown
let reader: { display?: Display; dates: DateOrder } = { dates: "day first" }
export function readAs(settings: Schemas["SettingsOut"]) {
  reader = { display: settings.display, dates: settings.date_order ?? "day first" }
}

function inUnit(value: number, unit: Unit): { text: string; unit: string } {
  const d = reader.display?.[KINDS[unit]]
  if (!d || d.unit === unit || (unit === "mm" && d.unit === "cm"))
    return { text: unit === "µS/cm" ? figure(Math.round(value), 6) : figure(value), unit }
  return { text: figure((unit === "mm" ? value / 10 : value) * d.factor + d.offset), unit: d.unit }
}

/** A value and its unit in words, as the reader chose. */
export function amount(value: number, unit: Unit): string {
  const shown = inUnit(value, unit)
  return `${shown.text} ${shown.unit}`
}

/** The unit alone, as the reader chose. */
export const unitName = (unit: Unit) => inUnit(0, unit).unit

/** A range with one unit, as the reader chose. */
export function span(low: number, high: number, unit: Unit, between = "to"): string {
  const shown = inUnit(high, unit)
  return `${inUnit(low, unit).text} ${between} ${shown.text} ${shown.unit}`
}

/** Ends of a range that comes as a list. */
export const spanOf = ([low = 0, high = low]: readonly number[], unit: Unit) =>
  span(low, high, unit)

/** A month and a day of an axis, in the order the reader chose. */
export const tick = (at: Date) =>
  at.toLocaleDateString(reader.dates === "month first" ? "en-US" : "en-GB", {
    day: "numeric",
    month: "short",
    timeZone: "UTC",
  })

/** A day, with its year when it is not this year's, in the order the reader chose. */
export function day(iso: string, today?: string): string {
  if (reader.dates === "ISO") return iso
  const date = new Date(`${iso}T12:00:00Z`)
  const sameYear = today === undefined || iso.slice(0, 4) === today.slice(0, 4)
  return date.toLocaleDateString(reader.dates === "month first" ? "en-US" : "en-GB", {
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
  return mL < 1000 ? `${figure(mL)} mL` : amount(mL / 1000, "L")
}

/** A water's reading in words: not measured is not zero. */
export const waterReads = (w: { ec25_uS_cm: number | null }) =>
  w.ec25_uS_cm === null ? "not measured" : amount(w.ec25_uS_cm, "µS/cm")

/** A predicted conductivity with its range, to the whole µS/cm. */
export function expected(low_uS_cm: number, high_uS_cm: number): string {
  return span(low_uS_cm, high_uS_cm, "µS/cm")
}
