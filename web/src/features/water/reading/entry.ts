import type { Schemas } from "../../../api/client"
import { type AmountValues } from "../../../ui/AmountFields"

export type Values = AmountValues & {
  water_id: string
  meter_id: string
  on: string
  value: string
  unit: NonNullable<Schemas["EntryIn"]["unit"]>
  scale: "0.5" | "0.64" | "0.7" | "unknown"
  meter: "yes" | "no"
  temperature: string
  note: string
}

export const TESTS = [
  "pH",
  "alkalinity",
  "hardness",
  "free chlorine",
  "total chlorine",
  "Na",
  "Cl",
  "F",
  "B",
  "Fe",
]

/** The meter this water was last read with. */
export function usual(
  waters: Schemas["WaterOut"][],
  chosen: number | undefined,
  meters: Schemas["MeterOut"][],
): string {
  const last = waters.find((w) => w.id === chosen)?.newest?.meter_id
  return meters.some((m) => m.id === last) ? String(last) : ""
}

export const figured = (value: number) => String(Math.round(value * 10) / 10)
