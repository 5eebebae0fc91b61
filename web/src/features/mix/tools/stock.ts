import type { Schemas } from "../../../api/client"

export type Values = {
  water_id: string
  p: string[]
  d: string[]
  volume: string
  way: "draw" | "ratio"
  draw: string
  ratio: string
  meaning: "1 in n" | "1 plus n"
  tank: string
  cold: string
}

export const PLACES = [0, 1, 2, 3] as const

export type Found =
  | { kind: "stock"; answer: Schemas["StockAnswer"] }
  | { kind: "ratio"; answer: Schemas["Computed_Injector_"]; clear: Schemas["Computed_Clarity_"] }

export const feedsOf = (v: Values) =>
  PLACES.flatMap((i) => (v.p[i] && v.d[i] ? [{ product_id: Number(v.p[i]), dose: v.d[i] }] : []))

export const names = (v: Values, shelf: Schemas["ProductOut"][]) =>
  feedsOf(v).map((f) => shelf.find((p) => p.id === f.product_id)?.name ?? "")
