import type { Schemas } from "../../api/client"

type Mark = NonNullable<Schemas["LookIn"]["marks"]>[number]

export type Values = {
  on: string
  leaves_count: string
  newest_leaf: string
  growing: "" | "yes" | "no"
  new_leaf: boolean
  new_growth: boolean
  growth_stopped: boolean
  spike: boolean
  root: string
  roots: "" | "yes" | "no"
  growth: "lead" | "side"
  growth_length: string
  all_roots: string
  marks: Mark[]
  none: boolean
  note: string
  plant_id: string
}

export const WORDS: Record<string, string> = {
  tip: "brown tip",
  rim: "brown rim",
  crisp: "crisp all over",
  spot: "spots",
  "yellow oldest": "oldest leaf yellow",
  crust: "white crust",
  algae: "green algae on the medium",
  limp: "limp leaves",
  rot: "rot",
}
