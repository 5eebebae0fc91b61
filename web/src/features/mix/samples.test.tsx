// A small shelf, waters and schools for the tests of the Mix tools.
import { fireEvent, screen } from "@testing-library/react"
import { expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { type Answer as Served, type Sent, SETTINGS, WORKING } from "../../testing/harness.test"
import { type Draft, type Page, soluble } from "./draft"

const LABEL: Schemas["ProductOut"]["label"] = {
  name: "",
  form: "powder",
  basis: "w/w",
  density_g_mL: null,
  n_total_pct: null,
  n_nitrate_pct: null,
  n_ammonium_pct: null,
  n_urea_pct: null,
  p_pct: null,
  k_pct: null,
  pk_as: "oxide",
  ca_pct: null,
  mg_pct: null,
  s_pct: null,
  cl_pct: null,
  na_pct: null,
  label_rate: null,
  label_rate_unit: null,
  solubility_g_L: null,
  n_other_pct: null,
  fe_pct: null,
  mn_pct: null,
  zn_pct: null,
  cu_pct: null,
  b_pct: null,
  mo_pct: null,
  fe_chelate: "",
  acidity_kg_t: null,
  kind: "soluble",
  longevity_days: null,
  longevity_at_C: null,
  bulk_density_g_mL: null,
  cap_mL: null,
  drop_mL: null,
  formula: "",
  co3_pct: null,
  others_as: "element",
  density_unknown: false,
}
const ELEMENTS: Schemas["Elements"] = {
  N_mg_g: 130,
  N_nitrate_mg_g: 116,
  N_ammonium_mg_g: 14,
  N_urea_mg_g: 0,
  P_mg_g: 13,
  K_mg_g: 124,
  Ca_mg_g: 80,
  Mg_mg_g: 20,
  S_mg_g: 0,
  Cl_mg_g: 0,
  Na_mg_g: 0,
  density_g_mL: null,
  split_known: true,
  unlisted_meq_g: 0,
  N_other_mg_g: 0,
  Fe_mg_g: 0,
  Mn_mg_g: 0,
  Zn_mg_g: 0,
  Cu_mg_g: 0,
  B_mg_g: 0,
  Mo_mg_g: 0,
  C_mg_g: 0,
  closed_with: "",
}

export const product = (
  id: number,
  name: string,
  label: Partial<typeof LABEL> = {},
  elements: Partial<Schemas["Elements"]> = {},
): Schemas["ProductOut"] => ({
  id,
  name,
  label: { ...LABEL, name, ...label },
  elements: { ...ELEMENTS, ...elements },
  acidity_kg_t: label.kind ? null : -132,
  shipped: true,
  owned: true,
})

export const SCHOOL: Schemas["SchoolOut"] = {
  school: {
    id: "thin",
    name: "Thin and constant",
    group: "rhythm",
    definition: "Thin feed at nearly every watering.",
    in_favour: "Even supply.",
    against: "Needs clean water.",
    n_mg_L: 50,
    n_low_mg_L: 30,
    n_high_mg_L: 60,
    cycle: 4,
    feeds: 3,
    route: "root",
    source: "judgement",
    confidence: "M",
    checked_by: "us",
    plain_times: 2,
    season: "any",
    label_share: null,
    prill_g_L: 0,
    prill_n_pct: 0,
    prill_days: 180,
    prill_at_C: 21,
    spray_mL: null,
    when: "",
  },
  edited: false,
  copy_id: null,
}
export const MIST: Schemas["SchoolOut"] = {
  ...SCHOOL,
  school: {
    ...SCHOOL.school,
    id: "mist",
    name: "Leaf spray before lights-out",
    route: "leaf",
    n_mg_L: 15,
    spray_mL: 3,
    when: "before lights-out",
    cycle: 7,
    feeds: 1,
  },
}

export const PAGE: Page = {
  today: "2026-11-23",
  usual_product_id: 1,
  start: { strength: "nitrogen", value: 40, element: "K", volume_L: 3, water_id: 1 },
  products: [
    product(1, "Nitrate feed"),
    product(2, "Urea feed", {}, { N_urea_mg_g: 105, Ca_mg_g: 0 }),
    product(3, "Calcium nitrate", { formula: "Ca(NO3)2.4H2O" }),
    product(4, "Potassium nitrate", { formula: "KNO3" }),
    product(5, "Magnesium sulfate", { formula: "MgSO4.7H2O" }),
    product(6, "Potassium phosphate", { formula: "KH2PO4" }),
    product(7, "Prey", { kind: "no ppm" }),
  ],
  waters: [
    { id: 1, name: "Rain", kind: "rain", ec25_uS_cm: 34, usual: null, read_on: "2026-11-21" },
    {
      id: 2,
      name: "Borehole",
      kind: "borehole",
      ec25_uS_cm: 740,
      usual: null,
      read_on: "2026-11-20",
    },
  ],
  pots: [
    {
      id: 1,
      code: "M-04",
      name: "Masdevallia",
      volume_L: 0.12,
      phase: "active",
      feed_ceiling_uS_cm: 500,
      feeds_at_root: true,
      held: "",
    },
    {
      id: 2,
      code: "G-01",
      name: "Butterwort",
      volume_L: 0.1,
      phase: "active",
      feed_ceiling_uS_cm: 120,
      feeds_at_root: false,
      held: "",
    },
    {
      id: 3,
      code: "D-09",
      name: "Dendrobium",
      volume_L: 0.3,
      phase: "rest",
      feed_ceiling_uS_cm: null,
      feeds_at_root: false,
      held: "Resting since 1 Nov.",
    },
  ],
  batches: [],
  vessels: [{ id: 1, name: "Mist bottle", kind: "mist bottle", volume_L: 0.5 }],
  schools: [SCHOOL, MIST],
  recipes: [
    {
      id: 1,
      name: "Mist",
      version: 2,
      made_on: "2026-10-01",
      product_id: 1,
      strength: "nitrogen",
      element: "N",
      value: 15,
      also: [{ product_id: 3, dose_g_L: 0.1 }],
      route: "leaf",
      school_id: "mist",
      named: true,
    },
    {
      id: 2,
      name: "Nitrate feed, nitrogen",
      version: 1,
      made_on: "2026-10-01",
      product_id: 1,
      strength: "nitrogen",
      element: "N",
      value: 40,
      also: [],
      route: "root",
      school_id: null,
      named: false,
    },
  ],
}
export const WATERS = PAGE.waters
export const DRAFT: Draft = {
  product_id: 1,
  water_id: 1,
  blend: [],
  pot_ids: [],
  volume: "3",
  strength: "nitrogen",
  element: "K",
  value: "40",
  also: [],
  route: "root",
  school_id: null,
  recipe: "",
  made_on: "2026-11-23",
}
export const tool = (onDraft: (d: Draft) => void = () => undefined) => ({
  page: PAGE,
  waters: WATERS,
  draft: DRAFT,
  onDraft,
})

export const BASE = {
  ...SETTINGS,
  "POST /api/mix/pots": {
    body: { volume_L: 0.6, strictest: "M-04 Masdevallia", ceiling_uS_cm: 500 },
  },
  "GET /api/options": {
    body: {
      ...SETTINGS["GET /api/options"].body,
      elements: ["N", "P", "K", "Ca", "Mg"],
      feed_routes: ["root", "leaf", "cup"],
      rate_amounts: ["g", "mL", "cap"],
      rate_pers: ["L", "US gal"],
    },
  },
}
export const computed = <T,>(result: T): Served => ({ body: { result, working: WORKING } })
export const refused = (detail: string, pointer = "/value"): Served => ({
  status: 422,
  body: { detail, errors: [{ pointer, detail }] },
})
/** The last body sent by POST. */
export const asked = (sent: Sent[], path?: string) =>
  sent.filter((s) => s.method !== "GET" && (path === undefined || s.path === path)).at(-1)?.body
export const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })

it("keeps feeds without a ppm out of the can", () => {
  expect(soluble(PAGE).map((p) => p.name)).not.toContain("Prey")
})
