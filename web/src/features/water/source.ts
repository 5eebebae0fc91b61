import type { Schemas } from "../../api/client"

export type In = Schemas["WaterIn"]

const NUMBERS = [
  "price_per_L",
  "on_hand_L",
  "capacity_L",
  "sodium_mg_L",
  "fluoride_mg_L",
  "hardness_mg_L_CaCO3",
  "alkalinity_mg_L_CaCO3",
  "free_chlorine_mg_L",
] as const

export type Values = {
  name: string
  kind: In["kind"]
  disinfectant: NonNullable<In["disinfectant"]>
  collected_on: string
  preference: number
} & Record<(typeof NUMBERS)[number], string>

export const typed = (water: In | undefined) =>
  Object.fromEntries(
    NUMBERS.map((n) => [
      n,
      water?.[n] === null || water?.[n] === undefined ? "" : String(water[n]),
    ]),
  ) as Record<(typeof NUMBERS)[number], string>
