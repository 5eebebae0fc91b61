// Samples for the tests of this station: waters, meters, a pen. Its one test guards them.
import { fireEvent, screen } from "@testing-library/react"
import { expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { type Sent, SETTINGS, WORKING } from "../../testing/harness.test"

export const WATCH: Schemas["WaterWatch"] = {
  retest_on: "2026-12-20",
  retest_due: false,
  rising: false,
  rise_uS_cm_month: null,
  keeps_until: null,
  too_old: false,
  short_term: false,
  concern: "fine",
  sentences: [],
}
export const read = (id: number, on: string, ec: number): Schemas["ReadingOut"] => ({
  id,
  on,
  value: ec,
  unit: "µS/cm",
  scale: null,
  temperature_C: 12.25,
  compensated: true,
  check_overdue: false,
  ec25_uS_cm: ec,
  half_width_uS_cm: 2,
  refusal: "",
  origin: "pen",
  meter_id: 7,
  possible_uS_cm: {},
})
export const water = (
  id: number,
  name: string,
  ec: number | null,
  more: Partial<Schemas["WaterOut"]> = {},
): Schemas["WaterOut"] => ({
  id,
  name,
  kind: "rain",
  kind_label: "rain",
  price_per_L: 0,
  on_hand_L: 40,
  capacity_L: 200,
  collected_on: "2026-11-20",
  disinfectant: "none",
  ec25_uS_cm: ec,
  half_width_uS_cm: 2,
  usual: null,
  reckoned_uS_cm: 34,
  low_uS_cm: 33,
  high_uS_cm: 35,
  read_on: "2026-11-21",
  age_days: 2,
  newest: ec === null ? null : read(id, "2026-11-21", ec),
  history:
    ec === null
      ? []
      : [
          read(id, "2026-11-21", ec),
          read(id + 10, "2026-11-10", ec + 1),
          read(id + 20, "2026-11-01", ec + 2),
        ],
  tests: [],
  unknown: [],
  treatments: [],
  report_id: null,
  report_on: null,
  watch: WATCH,
  amounts: "within for all 1",
  kind_line: "nothing known against it",
  ...more,
})
export const PAGE: Schemas["WaterPage"] = {
  today: "2026-11-23",
  waters: [
    water(1, "Cistern", 34),
    water(2, "Borehole", 754, { kind: "borehole" }),
    water(3, "Unit", 24, { kind: "permeate" }),
    water(4, "Jug", null),
  ],
  groups: [{ profile_id: "disa", short: "Disa", ec_max_uS_cm: 80, confidence: "medium", pots: 1 }],
  verdicts: [
    {
      water_id: 1,
      profile_id: "disa",
      amount: "within",
      margin_line: "margin 4",
      kind: "known good",
      kind_line: "nothing known against it",
      limiting: "",
      word: "yes",
    },
  ],
}
export const QUANTITIES: Schemas["QuantityOut"][] = [
  { id: "Na", label: "sodium", units: ["mg/L", "mmol/L"], ion: true },
  { id: "hardness", label: "hardness", units: ["mg/L CaCO3", "°dH"], ion: false },
  { id: "pH", label: "pH", units: [""], ion: true },
]
export const METER: Schemas["MeterOut"] = {
  id: 7,
  name: "Pen 1",
  unit: "µS/cm",
  scale: null,
  compensation: "linear",
  alpha_pct_per_C: 2,
  resolution: 1,
  accuracy_pct_fs: 1,
  range_uS_cm: 2000,
  device: null,
  check_days: null,
  check_due: true,
  problem: "",
  calibration: {
    slope: 0.95,
    factor: 1,
    offset_uS_cm: 2,
    points: 2,
    checked_on: "2026-11-01",
    drift_pct_month: null,
    drift_half_width_pct_month: null,
    next_check_on: "2026-12-01",
    relative_half_width: 0.012,
    absolute_half_width_uS_cm: 0.5,
    fit_above_uS_cm: 3,
    state: "correctable",
    sentence: "Reads -5.0 %: readings are corrected, the shown values kept.",
  },
  checks: [
    {
      id: 1,
      on: "2026-11-01",
      standard_name: "1413",
      standard_uS_cm: 1413,
      temperature_C: 21,
      shown: 1344,
      unit: "µS/cm",
      adjusted: false,
    },
  ],
}
export const GIFT: Schemas["MeterOut"] = {
  ...METER,
  id: 8,
  name: "Gift",
  unit: "ppm",
  scale: "unknown",
  calibration: null,
  checks: [],
  problem: "Its ppm scale is not known: find it first.",
}
export const PEN: Schemas["PenOut"] = {
  present: true,
  simulated: true,
  plugged: true,
  reading: false,
  settled: false,
  value_uS_cm: null,
  corrected_uS_cm: null,
  temperature_C: null,
  pH: null,
  spread_uS_cm: null,
  trace: [],
  device: "",
  meter_id: null,
  problem: "",
  criterion: "Settled when all samples lie within 1 %.",
}
export const BASE = {
  ...SETTINGS,
  "GET /api/quantities": { body: QUANTITIES },
  "GET /api/meters": {
    body: { today: "2026-11-23", standards: { "84": 84, "1413": 1413 }, meters: [METER, GIFT] },
  },
  "GET /api/pen": { body: PEN },
  "GET /api/water-kinds": {
    body: [
      { value: "rain", label: "rain", note: "One entry for each barrel.", runs: false },
      { value: "soft", label: "naturally soft", note: "", runs: true },
      { value: "softened", label: "softened by salt", note: "", runs: true },
    ],
  },
}
export const computed = <T,>(result: T) => ({ body: { result, working: WORKING } })
export const asked = (sent: Sent[]) => sent.findLast((s) => s.method === "POST")?.body
export const type = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })

it("the samples name each thing once", () => {
  expect(new Set(PAGE.waters.map((w) => w.id)).size).toBe(PAGE.waters.length)
  expect(new Set([METER.id, GIFT.id]).size).toBe(2)
})
