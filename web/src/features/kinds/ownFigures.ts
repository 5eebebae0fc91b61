export type Values = {
  water_max: string
  alkalinity_max: string
  reading_low: string
  reading_high: string
  reading_ceiling: string
  nitrogen_low: string
  nitrogen_high: string
  feed_ceiling: string
  minimum_C: string
  flush_each_days: string
  gate_root_cm: string
  gate_roots: string
  gate_growth_cm: string
  word: string
}

export const EMPTY: Values = {
  water_max: "",
  alkalinity_max: "",
  reading_low: "",
  reading_high: "",
  reading_ceiling: "",
  nitrogen_low: "",
  nitrogen_high: "",
  feed_ceiling: "",
  minimum_C: "",
  flush_each_days: "",
  gate_root_cm: "",
  gate_roots: "",
  gate_growth_cm: "",
  word: "",
}
