import type { Schemas } from "../../api/client"

type In = Schemas["PotIn"]

export type Values = {
  code: string
  name: string
  profile_id: string
  medium_id: string
  volume: string
  top_cm: string
  height_cm: string
  drainage: NonNullable<In["drainage"]>
  below_L: string
  interval_days: string
  phase: NonNullable<In["phase"]>
  place: string
  spot: string
  medium_charged: "" | "yes" | "no"
  medium_limed: "" | "yes" | "no"
  arrived_on: string
  source: string
  watered_on: string
  fed_on: string
  isolated: boolean
  label: string
  count: string
  alike: string
  tags: string
}
