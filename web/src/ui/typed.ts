// A number typed in the unit the reader sees: it goes out with that unit beside it, and the server puts it in the
// field's own.
import { figure, type Unit, unitOf } from "./format"

const tail = (unit: Unit) => {
  const u = unitOf(unit)
  return u ? ` ${u.unit} as ${unit}` : ""
}

/** The name of a unit beside a field, as the reader chose; a unit nobody chooses stays. */
export const besideField = (unit: string) => unitOf(unit as Unit)?.unit ?? unit

/** What goes out for a text typed beside that unit. */
export const typedIn = (text: string, unit: string) =>
  text.trim() === "" ? "" : text + tail(unit as Unit)

/** What stands in the field for what goes out; a plain number is one in the field's own unit. */
export function inField(value: string, unit: string): string {
  const u = unitOf(unit as Unit)
  if (!u || value === "") return value
  if (value.endsWith(tail(unit as Unit))) return value.slice(0, -tail(unit as Unit).length)
  const number = Number(value)
  return Number.isNaN(number) ? value : figure(number * u.factor + u.offset).replace(/\u202f/g, "")
}

/** For a drawing: the number in the field's own unit, null when none is typed yet. */
export function drawn(value: string, unit: string): number | null {
  const u = unitOf(unit as Unit)
  const typed = u && value.endsWith(tail(unit as Unit))
  const text = (typed ? inField(value, unit) : value).trim().replace(",", ".")
  const number = text === "" ? NaN : Number(text)
  return Number.isNaN(number) ? null : typed ? (number - u.offset) / u.factor : number
}

/** What waits to be sent, apart: the text as typed, and the units it goes out with, whatever was chosen since. */
export function parted(value: string): { text: string; unit: string; tail: string } {
  const found = /^(.*?)( ([^\d\s].*) as \S+)$/.exec(value)
  return { text: found?.[1] ?? value, unit: found?.[3] ?? "", tail: found?.[2] ?? "" }
}
