// What is being entered of a look, as it stands in the page; the server reads and refuses it.
import { typedIn } from "../../ui/typed"
import type { Schemas } from "../../api/client"
import { yesOrNo } from "../../ui/yesOrNo"
import type { Asked } from "./queries"

export type Mark = Schemas["MarkSeen"]
export type Organ = Schemas["OrganSeen"]
export type MarksTold = "not looked" | "none" | "seen" | "cannot tell"

export type Draft = {
  on: string
  plant_id: number
  as_last: boolean
  new_leaf: boolean
  opened_on: string
  opened_precision: "day" | "week" | "month"
  newest_leaf: string
  growing: "" | "yes" | "no"
  leaves_count: string
  lost: string
  lost_why: NonNullable<Schemas["LookIn"]["lost_why"]>
  marks: Mark[]
  told: MarksTold
  organs: Organ[]
  new_growth: boolean
  growth_stopped: boolean
  spike: boolean
  growth: "lead" | "side"
  growth_length: string
  all_roots: string
  roots: "" | "yes" | "no"
  posture: string
  hour: string
  pests: string
  surface: NonNullable<Schemas["LookIn"]["surface"]>
  by: string
  note: string
}

export const emptyDraft = (asked: Asked): Draft => ({
  on: asked.today,
  plant_id: asked.plant_id,
  as_last: false,
  new_leaf: false,
  opened_on: "",
  opened_precision: "day",
  newest_leaf: "",
  growing: "",
  leaves_count: "",
  lost: "",
  lost_why: "",
  marks: [],
  told: "not looked",
  organs: [],
  new_growth: false,
  growth_stopped: false,
  spike: false,
  growth: "lead",
  growth_length: "",
  all_roots: "",
  roots: "",
  posture: "",
  hour: "",
  pests: "",
  surface: "",
  by: "",
  note: "",
})

/** The request a draft makes. */
export function bodyOf(d: Draft): Schemas["LookIn"] {
  const { growing, told, all_roots, roots, opened_on, ...rest } = d
  return {
    ...rest,
    newest_leaf_unit: "mm",
    opened_on: opened_on || null,
    leaf_growing: yesOrNo(growing),
    roots: all_roots
      .split(/[;\s]+/)
      .filter(Boolean)
      .map((root) => typedIn(root, "cm")),
    roots_working: yesOrNo(roots),
    marks_looked_for: told === "none" || told === "seen",
    unknown: told === "cannot tell" ? ["marks"] : [],
  }
}

/** The words of an organ in a draft, or an empty answer to write into. */
export const organOf = (d: Draft, organ: Organ["organ"]): Organ =>
  d.organs.find((o) => o.organ === organ) ?? { organ, told: "seen", words: {} }

/** A draft with one organ told anew. */
export const withOrgan = (d: Draft, organ: Organ): Draft => ({
  ...d,
  organs: [...d.organs.filter((o) => o.organ !== organ.organ), organ],
})

/** A draft with a mark added, or another in its place. */
export const withMark = (d: Draft, mark: Mark, at = d.marks.length): Draft => ({
  ...d,
  told: "seen",
  marks: d.marks.some((_, i) => i === at)
    ? d.marks.map((m, i) => (i === at ? mark : m))
    : [...d.marks, mark],
})

/** A mark of which only its kind is told. */
export const bareMark = (kind: Mark["kind"]): Mark => ({
  kind,
  place: "unknown",
  texture: "",
  old: false,
  cause: "",
  since_precision: "day",
  on_new: false,
})
