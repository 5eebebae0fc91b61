import type { Schemas } from "../../../api/client"

type Kind = NonNullable<Schemas["MeasureIn"]["kind"]>

export type Values = {
  name: string
  kind: Kind
  product_id: string
  w: string[]
  volume_mL: string
  levels: string
}

export const PLACES = [0, 1, 2, 3, 4] as const

export const bodyOf = (v: Values): Schemas["MeasureIn"] => ({
  name: v.name,
  kind: v.kind,
  product_id: Number(v.product_id),
  weighings: v.w,
  volume_mL: v.volume_mL,
  levels_each: Number(v.levels) || 1,
})
