// A can as the grower names it; the server works everything out.
import type { Schemas } from "../../api/client"

export type Page = Schemas["MixPage"]
export type Answer = Schemas["MixAnswer"]
export type Mode = NonNullable<Schemas["DoseIn"]["strength"]>
export type Route = NonNullable<Schemas["DoseIn"]["route"]>
export type Also = { product_id: number; dose: string }
export type Share = { water_id: number; share: string }
export type Draft = {
  product_id: number | null
  water_id: number
  blend: Share[]
  pot_ids: number[]
  volume: string
  strength: Mode
  element: string
  value: string
  also: Also[]
  route: Route
  school_id: string | null
  recipe: string
  made_on: string
}

export const firstDraft = (page: Page, waters: Schemas["MixWater"][]): Draft => ({
  product_id: page.usual_product_id,
  water_id: page.start.water_id ?? waters[0]?.id ?? 0,
  blend: [],
  pot_ids: [],
  volume: String(page.start.volume_L),
  strength: page.start.strength,
  element: page.start.element,
  value: String(page.start.value),
  also: [],
  route: "root",
  school_id: null,
  recipe: "",
  made_on: page.today,
})

export const soluble = (page: Page) => page.products.filter((p) => p.label.kind === "soluble")

export const body = (draft: Draft, volume_unit: "L" | "US gal" | "imp gal") => {
  const { recipe, made_on, ...rest } = draft
  void [recipe, made_on] // a can names its recipe and its day apart
  return {
    ...rest,
    volume_unit,
    also: draft.also.filter((a) => a.dose !== ""),
    blend: draft.blend.length > 1 ? draft.blend : [],
  }
}

/** A can as the log keeps it, made on the day that was told. */
export const asMade = (draft: Draft, unit: "L" | "US gal" | "imp gal", today: string) => ({
  ...body(draft, unit),
  made_on: draft.made_on || today,
  name: "",
  recipe: draft.recipe,
})

/** A recipe's newest version as a draft; pots, water and volume stay. */
export const fromRecipe = (draft: Draft, r: Schemas["RecipeOut"]): Draft => ({
  ...draft,
  recipe: r.name,
  product_id: r.product_id,
  strength: r.strength as Mode,
  element: r.element,
  value: String(r.value),
  route: r.route as Route,
  school_id: r.school_id,
  also: r.also.map((a) => ({ product_id: Number(a.product_id), dose: String(a.dose_g_L) })),
})
