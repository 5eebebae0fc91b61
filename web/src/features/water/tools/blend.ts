import type { Schemas } from "../../../api/client"

export type Values = {
  water_ids: string[]
  quantity: "ec" | "alkalinity" | "hardness"
  sense: "about" | "at most"
  value: string
  also: "" | "ec" | "alkalinity" | "hardness"
  most: string
  volume: string
  objective: Schemas["BlendIn"]["objective"]
  scarce_id: string
  mind_stock: string[]
}

export const WHAT = [
  { value: "ec", label: "EC, µS/cm" },
  { value: "alkalinity", label: "alkalinity, mg/L CaCO3" },
  { value: "hardness", label: "hardness, mg/L CaCO3" },
]
