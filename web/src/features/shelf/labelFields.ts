// Fields of a label as typed, and how a product's label fills them.
import type { Schemas } from "../../api/client"

export type In = Schemas["ProductIn"]
export const NITROGEN = [
  ["n_total_pct", "Total nitrogen"],
  ["n_nitrate_pct", "Nitrate nitrogen"],
  ["n_ammonium_pct", "Ammoniacal nitrogen"],
  ["n_urea_pct", "Urea nitrogen"],
  ["n_other_pct", "Other nitrogen, slow"],
] as const
export const MAJOR = [
  ["p_pct", "Phosphorus"],
  ["k_pct", "Potassium"],
  ["ca_pct", "Calcium"],
  ["mg_pct", "Magnesium"],
  ["s_pct", "Sulfur"],
  ["cl_pct", "Chloride, Cl"],
  ["na_pct", "Sodium, Na"],
  ["co3_pct", "Carbonate, CO3"],
] as const
export const TRACES = [
  ["fe_pct", "Iron, Fe"],
  ["mn_pct", "Manganese, Mn"],
  ["zn_pct", "Zinc, Zn"],
  ["cu_pct", "Copper, Cu"],
  ["b_pct", "Boron, B"],
  ["mo_pct", "Molybdenum, Mo"],
] as const
const NUMBERS = [
  "density_g_mL",
  "label_rate",
  "solubility_g_L",
  "acidity_kg_t",
  "longevity_days",
  "longevity_at_C",
  "bulk_density_g_mL",
  "cap_mL",
  "drop_mL",
] as const
const PACK = ["price", "pack_amount", "left_amount"] as const

type Share = (typeof NITROGEN)[number][0] | (typeof MAJOR)[number][0] | (typeof TRACES)[number][0]
export type Values = Record<Share | (typeof NUMBERS)[number] | (typeof PACK)[number], string> & {
  name: string
  kind: NonNullable<In["kind"]>
  form: NonNullable<In["form"]>
  basis: "" | NonNullable<In["basis"]>
  pk_as: "" | NonNullable<In["pk_as"]>
  others_as: "" | NonNullable<In["others_as"]>
  density_unknown: boolean
  acidity_unit: NonNullable<In["acidity_unit"]>
  formula: string
  fe_chelate: NonNullable<In["fe_chelate"]>
  rate_amount: string
  rate_per: string
  opened_on: string
  grade: string
}

const text = (v: unknown) => (v === null || v === undefined ? "" : String(v))

/** A product as the form shows it; nothing for a new one. */
export function valuesOf(product?: Schemas["ProductOut"], pack?: Schemas["PackOut"]): Values {
  const label: Partial<Schemas["ProductOut"]["label"]> = product?.label ?? {}
  const from = (keys: readonly string[], row: object) =>
    Object.fromEntries(keys.map((k) => [k, text((row as Record<string, unknown>)[k])]))
  const [amount = "g", per = "L"] = (label.label_rate_unit ?? "g/L").split("/")
  // shares of a formula are the formula's own: showing them as typed would only repeat it
  const shares = label.formula ? {} : label
  const known = product !== undefined && !label.formula // a new product is asked, nothing is taken for granted
  return {
    ...from(
      [...NITROGEN, ...MAJOR, ...TRACES].map(([k]) => k),
      shares,
    ),
    ...from(NUMBERS, label),
    ...from(PACK, { ...pack, left_amount: pack?.left_now ?? null }),
    name: label.name ?? "",
    kind: label.kind ?? "soluble",
    form: label.form ?? "powder",
    basis: known ? (label.basis ?? "w/w") : "",
    pk_as: known ? (label.pk_as ?? "oxide") : "",
    others_as: known ? (label.others_as ?? "element") : "",
    density_unknown: label.density_unknown ?? false,
    acidity_unit: "kg CaCO3/t",
    formula: label.formula ?? "",
    fe_chelate: label.fe_chelate ?? "",
    rate_amount: amount,
    rate_per: per,
    opened_on: pack?.opened_on ?? "",
    grade: "",
  } as Values
}

/** What is sent: empty is not stated. */
export function bodyOf(v: Values): In {
  const { rate_amount, rate_per, grade, opened_on, ...rest } = v
  void grade // read by itself, filled into the shares when confirmed
  return {
    ...rest,
    basis: v.basis || null,
    pk_as: v.pk_as || null,
    others_as: v.others_as || null,
    label_rate_unit: v.label_rate ? `${rate_amount}/${rate_per}` : null,
    opened_on: opened_on || null,
  }
}

/** The label alone, without its pack. */
export function labelOf(v: Values): Schemas["LabelIn"] {
  const { price, pack_amount, left_amount, opened_on, ...label } = bodyOf(v)
  void [price, pack_amount, left_amount, opened_on]
  return label
}
