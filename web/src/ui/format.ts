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

/** A number with thin spaces between thousands, at most `digits` significant figures, no exponent. Written without the
 * browser's own number formats: the first of them holds up the first page of a phone for a tenth of a second. */
export function figure(value: number, digits = 3): string {
  const [mantissa = "0", exponent] = Math.abs(value).toExponential().split("e")
  const power = Number(exponent)
  const kept = Math.max(digits, power + 1) // a whole number is written whole
  const all = mantissa.replace(".", "").padEnd(kept, "0")
  const rounded = Math.round(Number(`${all.slice(0, kept)}.${all.slice(kept)}`))
  const decimals = Math.min(100, kept - 1 - power)
  const text = Number(`${rounded}e${power + 1 - kept}`).toFixed(decimals)
  const [thousands = "", part = ""] = text.split(".")
  const sign = value < 0 && rounded ? "\u2212" : ""
  const after = part.replace(/0+$/, "")
  return sign + thousands.replace(/\B(?=(\d{3})+$)/g, "\u202f") + (after && `.${after}`)
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

/** How a value of this unit is shown, when the reader chose another: shown = value * factor + offset. */
export function unitOf(unit: Unit): { unit: string; factor: number; offset: number } | null {
  const d = reader.display?.[KINDS[unit]]
  if (!d || d.unit === unit || (unit === "mm" && d.unit === "cm")) return null
  return { unit: d.unit, factor: unit === "mm" ? d.factor / 10 : d.factor, offset: d.offset }
}

function inUnit(value: number, unit: Unit): { text: string; unit: string } {
  const d = unitOf(unit)
  const whole = unit === "µS/cm" && Math.abs(value) >= 10
  if (!d)
    return {
      text: whole ? figure(Math.round(value), 6) : figure(value, unit === "µS/cm" ? 2 : 3),
      unit,
    }
  return { text: figure(value * d.factor + d.offset), unit: d.unit }
}

/** The number of a value, as the reader chose. */
export function inReader(value: number, unit: Unit): number {
  const d = unitOf(unit)
  return d ? value * d.factor + d.offset : value
}

/** The unit, and the scale of a ppm, in which this reader's pen most likely shows. */
export function readerPen(): {
  unit: "µS/cm" | "mS/cm" | "ppm"
  scale: "0.5" | "0.64" | "0.7" | "unknown"
} {
  const shown = reader.display?.ec?.unit ?? "µS/cm"
  const scale = (["0.5", "0.64", "0.7"] as const).find((s) => shown === `ppm (${s} scale)`)
  if (scale) return { unit: "ppm", scale }
  return { unit: shown === "mS/cm" ? "mS/cm" : "µS/cm", scale: "unknown" }
}

/** A value and its unit in words, as the reader chose. */
export function amount(value: number, unit: Unit): string {
  const shown = inUnit(value, unit)
  return `${shown.text} ${shown.unit}`
}

/** A value and its unit apart; a unit nobody chooses stays. */
export const withUnit = (value: number, unit: string) =>
  unitOf(unit as Unit) ? inUnit(value, unit as Unit) : { text: figure(value), unit }

/** A value whose unit comes with it from the server. */
export const amountOf = (value: number, unit: string) =>
  unit in KINDS ? amount(value, unit as Unit) : `${figure(value)} ${unit}`

/** The unit of every conductivity and the temperature it is told at. */
export const ecScale = () => `${unitName("µS/cm")} at ${amount(25, "°C")}`

/** The number alone, for a column whose head names the unit. */
export const numberIn = (value: number, unit: Unit) => inUnit(value, unit).text

/** The unit alone, as the reader chose. */
export const unitName = (unit: Unit) => inUnit(0, unit).unit

/** A range with one unit, as the reader chose. */
export function span(low: number, high: number, unit: Unit, between = "to"): string {
  const shown = inUnit(high, unit)
  return `${inUnit(low, unit).text} ${between} ${shown.text} ${shown.unit}`
}

/** A range without its unit, which stands elsewhere. */
export const spanIn = (low: number, high: number, unit: Unit, between = "to") =>
  `${inUnit(low, unit).text} ${between} ${inUnit(high, unit).text}`

/** Ends of a range that comes as a list. */
export const spanOf = ([low = 0, high = low]: readonly number[], unit: Unit) =>
  span(low, high, unit)

// made once for what it is asked for: to make a format takes a hundred times as long as to use it
const formats = new Map<string, Intl.DateTimeFormat>()
const locale = () => (reader.dates === "month first" ? "en-US" : "en-GB")
function said(at: Date, how: Intl.DateTimeFormatOptions): string {
  const key = locale() + JSON.stringify(how)
  const format = formats.get(key) ?? new Intl.DateTimeFormat(locale(), { ...how, timeZone: "UTC" })
  formats.set(key, format)
  return format.format(at)
}
const noon = (iso: string) => new Date(`${iso}T12:00:00Z`)

/** A month and a day of an axis, in the order the reader chose. */
export const tick = (at: Date) =>
  reader.dates === "ISO"
    ? at.toISOString().slice(5, 10)
    : said(at, { day: "numeric", month: "short" })

/** A month of an axis; with its year where the axis is long. */
export const monthTick = (at: Date, year?: boolean) =>
  said(at, { month: "short", year: year ? "2-digit" : undefined })

/** A day, with its year when it is not this year's, in the order the reader chose. */
export function day(iso: string, today?: string): string {
  if (reader.dates === "ISO") return iso
  const sameYear = today === undefined || iso.slice(0, 4) === today.slice(0, 4)
  return said(noon(iso), {
    day: "numeric",
    month: "short",
    year: sameYear ? undefined : "numeric",
  })
}

/** A day with its year, whatever year it is. */
export const wholeDay = (iso: string) => day(iso, "")

const WEEKDAYS = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"]
/** The day of the week in full. It heads the first page: to load the browser's calendar for it would take longer. */
export const weekdayOf = (iso: string) => WEEKDAYS[noon(iso).getUTCDay()]

/** A day of the coming weeks, by the day of the week. */
export const weekDay = (iso: string) =>
  reader.dates === "ISO"
    ? `${said(noon(iso), { weekday: "short" })} ${iso}`
    : said(noon(iso), { weekday: "short", day: "numeric", month: "short" })

/** A day and an hour, by this machine's clock. */
export function moment(at: Date): string {
  const here = new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString()
  const clock = at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })
  return `${weekDay(here.slice(0, 10))}, ${clock}`
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

/** So many of a list, and how many more there are. */
export const listed = (names: string[], most: number) =>
  `${names.slice(0, most).join(", ")}${names.length > most ? ` and ${names.length - most} more` : ""}`

/** Words as a line begins with them. */
export const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
