// What the plan form holds, and how it becomes what is sent: no rule, only names.
import type { Schemas } from "../../api/client"

export type PlanIn = Schemas["PlanIn"]
export type Plan = Schemas["PlanOut"]["plan"]
export type Scope = NonNullable<PlanIn["scope"]>
export type ProductRow = { when: Plan["products"][number]["when"]; product_id: string }

export type Values = Required<
  Omit<
    PlanIn,
    "products" | "value" | "measure_id" | "count" | "warm_C" | "lamps_h" | "faster_days" | "count_L"
  >
> & {
  products: ProductRow[]
  value: string
  measure_id: string
  count: string
  count_L: string
  warm_C: string
  lamps_h: string
  faster_days: string
}

const text = (v: number | string | null | undefined) => (v == null ? "" : String(v))

/** The form of a plan: a kept one, a start, or a new one. */
export function valuesOf(plan: Partial<Plan>, said: string, scope: Scope, key: string): Values {
  return {
    scope,
    key,
    name: plan.name ?? "",
    season_from: plan.season?.[0] ?? "",
    season_to: plan.season?.[1] ?? "",
    warm_C: text(plan.warm_C),
    warm_nights: plan.warm_nights ?? 6,
    growth: plan.growth ?? "",
    bloom: plan.bloom ?? "",
    reserve_only: plan.reserve_only ?? false,
    lamps_h: text(plan.lamps_h),
    outside: plan.outside ?? "none",
    outside_share: plan.outside_share ?? 0.5,
    rhythm: plan.rhythm ?? "waterings",
    every_days: plan.every_days ?? 14,
    faster_from: plan.faster?.[0] ?? "",
    faster_to: plan.faster?.[1] ?? "",
    faster_days: text(plan.faster_days ?? 7),
    every_months: plan.every_months ?? 1,
    cycle: plan.cycle ?? 4,
    feeds: plan.feeds ?? 1,
    strength: plan.strength === "count" ? "dose" : (plan.strength ?? ""),
    value: said,
    measure_id: "",
    count: "",
    count_L: "1",
    products: (plan.products ?? []).map((p) => ({
      when: p.when,
      product_id: text(p.product_id),
    })),
    route: plan.route ?? "",
    spray_days: plan.spray_days ?? 0,
    spray_n_mg_L: plan.spray_n_mg_L ?? 0,
    spray_mL: plan.spray_mL ?? 3,
    spray_when: plan.spray_when ?? "",
    spray_before_dark_min: plan.spray_before_dark_min ?? 0,
    beyond: plan.beyond ?? "",
  }
}

const orNull = (v: string) => (v.trim() === "" ? null : v)

/** What is sent: numbers stay as they were typed. */
export function bodyOf(v: Values): PlanIn {
  return {
    ...v,
    warm_C: orNull(v.warm_C),
    lamps_h: orNull(v.lamps_h),
    count: orNull(v.count),
    count_L: v.count_L || "1",
    faster_days: v.faster_days || "7",
    measure_id: v.measure_id ? Number(v.measure_id) : null,
    products: v.products.map((p) => ({
      when: p.when,
      product_id: p.product_id ? Number(p.product_id) : null,
    })),
  } as PlanIn
}

export const planPath = (scope: Scope, key = "", start = "") =>
  `/plans/edit?${new URLSearchParams({ scope, key, ...(start && { start }) }).toString()}`
