import { type Schemas } from "../../../api/client"

export type Change = Schemas["PotChange"]

/** What the form shows of a pot, as it was opened. */
export const seenOf = (row: Schemas["PotRow"]): Schemas["PotSeen"] => ({
  code: row.code,
  name: row.name === row.profile ? "" : row.name,
  place: row.place,
  spot: row.spot,
  drainage: row.drainage,
  route: row.route,
  isolated: row.isolated,
})

export type Values = {
  code: string
  name: string
  place: string
  spot: string
  volume: string
  top_cm: string
  height_cm: string
  medium_id: string
  medium_since: string
  medium_charged: string
  medium_limed: string
  drainage: string
  below_L: string
  route: string
  interval_days: string
  isolated: string
  add_tags: string
  remove_tags: string
}
