import { fireEvent, screen, waitFor, within } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { type Sent, serve, SETTINGS, show, WORKING } from "../../testing/harness.test"
import { AnyPlant } from "./AnyPlant"
import { LineChart } from "./LineChart"
import { Meters } from "./meters/Meters"
import { FileImport } from "./reading/FileImport"
import { Inbox } from "./reading/Inbox"
import { ReadingForm } from "./reading/ReadingForm"
import { Reports } from "./reports/Reports"
import { SourceCard } from "./SourceCard"
import { SourceForm } from "./SourceForm"
import { AlkalinityTool } from "./tools/AlkalinityTool"
import { BlendTool } from "./tools/BlendTool"
import { BoilTool } from "./tools/BoilTool"
import { ChlorineTool } from "./tools/ChlorineTool"
import { MembraneTool } from "./tools/MembraneTool"
import { ShareTool } from "./tools/ShareTool"
import { Tools } from "./tools/Tools"

const WATCH: Schemas["WaterWatch"] = { retest_on: "2026-12-20", retest_due: false, rising: false, rise_uS_cm_month: null, keeps_until: null, too_old: false, short_term: false, concern: "fine", sentences: [] }
const read = (id: number, on: string, ec: number): Schemas["ReadingOut"] => ({ id, on, value: ec, unit: "µS/cm", scale: null, temperature_C: 12.25, compensated: true, ec25_uS_cm: ec, half_width_uS_cm: 2, refusal: "", origin: "pen", meter_id: 7, possible_uS_cm: {} })
const water = (id: number, name: string, ec: number | null, more: Partial<Schemas["WaterOut"]> = {}): Schemas["WaterOut"] => ({
  id, name, kind: "rain", kind_label: "rain", price_per_L: 0, on_hand_L: 40, capacity_L: 200, collected_on: "2026-11-20", disinfectant: "none", ec25_uS_cm: ec, half_width_uS_cm: 2, read_on: "2026-11-21", age_days: 2,
  newest: ec === null ? null : read(id, "2026-11-21", ec), history: ec === null ? [] : [read(id, "2026-11-21", ec), read(id + 10, "2026-11-10", ec + 1), read(id + 20, "2026-11-01", ec + 2)],
  tests: [], unknown: [], treatments: [], report_id: null, report_on: null, watch: WATCH, amounts: "within for all 1", kind_line: "nothing known against it", ...more,
})
const PAGE: Schemas["WaterPage"] = {
  today: "2026-11-23", waters: [water(1, "Cistern", 34), water(2, "Borehole", 754, { kind: "borehole" }), water(3, "Unit", 24, { kind: "permeate" }), water(4, "Jug", null)],
  groups: [{ profile_id: "disa", short: "Disa", ec_max_uS_cm: 80, confidence: "medium", pots: 1 }],
  verdicts: [{ water_id: 1, profile_id: "disa", amount: "within", amount_line: "34 of at most 80 µS/cm, margin 4", kind: "known good", kind_line: "nothing known against it", limiting: "" }],
}
const QUANTITIES: Schemas["QuantityOut"][] = [
  { id: "Na", label: "sodium", units: ["mg/L", "mmol/L"], ion: true }, { id: "hardness", label: "hardness", units: ["mg/L CaCO3", "°dH"], ion: false }, { id: "pH", label: "pH", units: [""], ion: true },
]
const METER: Schemas["MeterOut"] = {
  id: 7, name: "Pen 1", unit: "µS/cm", scale: null, compensation: "linear", alpha_pct_per_C: 2, resolution: 1, accuracy_pct_fs: 1, range_uS_cm: 2000, device: null, check_due: true, problem: "",
  calibration: { slope: 0.95, offset_uS_cm: 2, points: 2, checked_on: "2026-11-01", drift_pct_month: null, drift_half_width_pct_month: null, next_check_on: "2026-12-01", relative_half_width: 0.012, absolute_half_width_uS_cm: 0.5, fit_above_uS_cm: 3, state: "correctable", sentence: "Reads -5.0 %: readings are corrected, the shown values kept." },
  checks: [{ id: 1, on: "2026-11-01", standard_name: "1413", standard_uS_cm: 1413, temperature_C: 21, shown: 1344, unit: "µS/cm", adjusted: false }],
}
const GIFT: Schemas["MeterOut"] = { ...METER, id: 8, name: "Gift", unit: "ppm", scale: "unknown", calibration: null, checks: [], problem: "Its ppm scale is not known: find it first." }
const PEN: Schemas["PenOut"] = { present: true, simulated: true, plugged: true, reading: false, settled: false, value_uS_cm: null, corrected_uS_cm: null, temperature_C: null, pH: null, spread_uS_cm: null, trace: [], device: "", meter_id: null, problem: "", criterion: "Settled when all samples lie within 1 %." }
const BASE = {
  ...SETTINGS, "GET /api/quantities": { body: QUANTITIES }, "GET /api/meters": { body: { today: "2026-11-23", standards: { "84": 84, "1413": 1413 }, meters: [METER, GIFT] } }, "GET /api/pen": { body: PEN },
  "GET /api/water-kinds": { body: [{ value: "rain", label: "rain", note: "One entry for each barrel.", runs: false }, { value: "soft", label: "naturally soft", note: "", runs: true }, { value: "softened", label: "softened by salt", note: "", runs: true }] },
}
const computed = <T,>(result: T) => ({ body: { result, working: WORKING } })
const asked = (sent: Sent[]) => sent.findLast((s) => s.method === "POST")?.body
const type = (label: string | RegExp, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } })

describe("blend", () => {
  const BLEND: Schemas["Blend"] = { parts: [{ name: "Cistern", share: 0.88, litres: 8.8 }, { name: "Borehole", share: 0.12, litres: 1.2 }], ec25_uS_cm: 120, straight_line_ec_uS_cm: 111, alkalinity_mg_L_CaCO3: 34, hardness_mg_L_CaCO3: null, cost: null, method: "ions" }
  it("starts with the water most unlike the chosen one and follows what is typed", async () => {
    const sent = serve({ ...BASE, "POST /api/water/blend": computed(BLEND) })
    show(<BlendTool page={PAGE} chosen={1} />)
    expect(await screen.findByText("8.8")).toBeTruthy()
    expect(asked(sent)).toMatchObject({ water_ids: [1, 2], targets: [{ quantity: "ec", value: "120", sense: "about" }], mind_stock: true })
    screen.getByText("not known: a price is missing", { exact: false })
    fireEvent.change(screen.getByLabelText("And at most"), { target: { value: "alkalinity" } })
    type("At most", "40")
    fireEvent.change(screen.getByLabelText("Aim"), { target: { value: "least of the scarce" } })
    screen.getByLabelText("Scarce")
    await waitFor(() => expect(asked(sent)).toMatchObject({ objective: "least of the scarce", targets: [{ quantity: "ec" }, { quantity: "alkalinity", value: "40", sense: "at most" }] }))
  })
  it("says which bound fails and shows no stale answer", async () => {
    serve({ ...BASE, "POST /api/water/blend": { status: 422, body: { detail: "EC 5 µS/cm cannot be blended: these waters reach 34 to 754.", errors: [{ pointer: "/targets", detail: "EC 5 µS/cm cannot be blended: these waters reach 34 to 754." }] } } })
    show(<BlendTool page={PAGE} chosen={1} />)
    expect((await screen.findByRole("alert")).textContent).toContain("these waters reach 34 to 754")
    expect(screen.queryByText("a straight line would say", { exact: false })).toBeNull()
  })
})

describe("share out", () => {
  const SHARE: Schemas["SharePage"] = {
    not_entered: ["Cistern"], unread: ["Jug"],
    answer: { working: WORKING, result: { groups: [{ name: "Disa", wanted_L: 2, portions: [{ water: "Unit", litres: 1.5 }], short_L: 0.5, ec25_uS_cm: 24, buy: "Unit" }, { name: "Fern", wanted_L: 1, portions: [], short_L: 1, ec25_uS_cm: null, buy: null }], left_L: { Unit: 0 }, short_L: 1.5, purchases: [{ water: "Unit", litres: 0.5, cost: 0.01 }], cost_per_week: 0.01, cost_per_month: 0.043 } },
  }
  it("names who goes short, what to get, and what was not entered", async () => {
    serve({ ...BASE, "GET /api/water/share-out": { body: SHARE } })
    show(<ShareTool />)
    await screen.findByText("0.5 L: get Unit")
    screen.getByText("1 L: nothing on sale suits it")
    screen.getByText("Litres not entered, counted as none: Cistern.")
    screen.getByText("Left out, never read: Jug.")
    expect(within(screen.getByRole("region", { name: "Who gets which water" })).getAllByRole("row")).toHaveLength(3)
  })
})

describe("membrane", () => {
  const TREND: Schemas["MembraneTrend"] = { rejections: [{ on: "2026-08-01", rejection_pct: 95 }, { on: "2026-11-01", rejection_pct: 89 }], now_pct: 89, trend_pct_month: null, trend_low_pct_month: null, trend_high_pct_month: null, floor_pct: 90, below_floor_on: null, below_floor_earliest: null, below_floor_latest: null, recovery_pct: null, concentrate_L_per_L: null, concentrate_uS_cm: null, state: "below the floor", alarm: true, sentence: "Rejects 89.0 %, below your floor of 90 %: replace or inspect the membrane." }
  const page = (answer: Schemas["MembranePage"]["answer"]): Schemas["MembranePage"] => ({ water_id: 3, floor_pct: 90, pairs: [{ id: 4, on: "2026-11-01", feed_uS_cm: 400, permeate_uS_cm: 44 }], answer })
  it("raises its alarm and tells what is missing for more", async () => {
    const sent = serve({ ...BASE, "GET /api/water/membrane/3": { body: page({ result: TREND, working: WORKING }) }, "POST /api/water/membrane/3/pairs": { body: page(null) } })
    show(<MembraneTool page={PAGE} chosen={1} />)
    expect((await screen.findByRole("alert")).textContent).toContain("replace or inspect")
    screen.getByText("three days with a pair are needed")
    fireEvent.click(screen.getByRole("button", { name: "Enter a pair" }))
    type("Feed, µS/cm", "404")
    type("Permeate, µS/cm", "24")
    fireEvent.click(screen.getByRole("button", { name: "Keep the pair" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({ feed: "404", permeate: "24" }))
  })
  it("teaches who has no unit", () => {
    serve(BASE)
    show(<MembraneTool page={{ ...PAGE, waters: PAGE.waters.slice(0, 2) }} chosen={1} />)
    screen.getByText("Add your reverse-osmosis unit as a source", { exact: false })
  })
})

describe("chlorine, boiling, acid", () => {
  it("fills in what was tested and says what standing can and cannot do", async () => {
    const sent = serve({ ...BASE, "POST /api/water/dechlorinate": computed<Schemas["Dechlorination"]>({ free_mg_L: 0.1, combined_mg_L: 0.5, thiosulfate_mg: 42, least_mg: 5.25, anhydrous_mg: 27, stock_mL: 4.2, ascorbic_mg: 15, wait_minutes: 30, ec_rise_uS_cm: 4.5, sodium_rise_mg_L: 0.8, ammonium_N_mg_L: 0.1, ways: [{ name: "Standing overnight", works: false, how: "Does not work on chloramine." }] }) })
    const tested = water(2, "Tap", 400, { disinfectant: "chloramine", tests: [{ quantity: "free chlorine", on: "2026-11-01", low: 0.1, high: 0.1, typed: "0.1", unit: "mg/L" }] })
    show(<ChlorineTool page={{ ...PAGE, waters: [tested] }} chosen={2} />)
    await screen.findByText("42")
    expect(asked(sent)).toMatchObject({ free: "0.1", supplier: "chloramine" })
    expect(screen.getByRole("row", { name: /Standing overnight/ }).textContent).toContain("no")
    screen.getByText("No reading falls", { exact: false })
  })
  it("boils only what is known", async () => {
    serve({ ...BASE, "POST /api/water/boil": { status: 422, body: { detail: "Calcium or alkalinity of this water is not known.", errors: [{ pointer: "/ions", detail: "Calcium or alkalinity of this water is not known." }] } } })
    show(<BoilTool page={PAGE} chosen={1} />)
    expect((await screen.findByRole("alert")).textContent).toContain("is not known")
  })
  it("keeps acids locked until the lines were confirmed", async () => {
    const sent = serve({ ...BASE, "GET /api/water/acids": { body: { read_on: null, safety: ["Add acid to water, never water to acid."], acids: [] } }, "POST /api/water/acids/read": { status: 201, body: { id: 1 } } })
    show(<AlkalinityTool page={PAGE} chosen={2} />)
    await screen.findByText("Add acid to water, never water to acid.")
    expect(screen.queryByLabelText("Acid")).toBeNull()
    fireEvent.click(screen.getByRole("button", { name: "I have read this" }))
    await waitFor(() => expect(sent.some((s) => s.path === "/api/water/acids/read" && s.key)).toBe(true))
  })
  it("asks a liquid's strength and puts a refusal beside it", async () => {
    const acid = (id: string, state: "dry" | "liquid", household: boolean) => ({ id, label: `${id} acid`, state, household, strengths_pct: state === "dry" ? [] : [38, 60], note: "" })
    serve({ ...BASE, "GET /api/water/acids": { body: { read_on: "2026-11-01", safety: ["Goggles."], acids: [acid("citric", "dry", true), acid("nitric", "liquid", false)] } }, "POST /api/water/acidify": { status: 422, body: { detail: "Strength of the nitric acid is missing.", errors: [{ pointer: "/strength_pct", detail: "Strength of the nitric acid is missing." }] } } })
    show(<AlkalinityTool page={PAGE} chosen={2} />)
    fireEvent.change(await screen.findByLabelText("Acid"), { target: { value: "nitric" } })
    screen.getByText("nitric acid (not for the household)")
    const field = screen.getByLabelText("Strength on the bottle, % by weight")
    await waitFor(() => expect(field.getAttribute("aria-invalid")).toBe("true"))
  })
})

describe("meters", () => {
  it("shows what the checks say, and what nobody knows", async () => {
    serve(BASE)
    show(<Meters />)
    await screen.findByText("Reads -5.0 %: readings are corrected, the shown values kept.")
    screen.getByText("due now")
    screen.getByText("two checks are needed")
    screen.getByText("Its ppm scale is not known: find it first.")
  })
  it("names the scale and sets it", async () => {
    const sent = serve({ ...BASE, "POST /api/calc/meter-scale-guess": computed<Schemas["ScaleGuess"]>({ scale: "0.7", confidence: "sure", factor: 0.7, odds: [{ scale: "0.7", would_show: 989, share: 0.97 }], sentence: "The 0.7 scale: sure, 97 of 100." }), "PUT /api/meters/8": { body: { id: 8 } } })
    show(<Meters />)
    fireEvent.click(await screen.findByRole("button", { name: "Which scale is it? Gift" }))
    expect(sent.some((s) => s.path.startsWith("/api/calc"))).toBe(false) // nothing is asked before something was read
    type("Gift shows", "989")
    fireEvent.click(await screen.findByRole("button", { name: "Set it to the 0.7 scale" }))
    await waitFor(() => expect(sent.find((s) => s.method === "PUT")?.body).toMatchObject({ unit: "ppm", scale: "0.7", name: "Gift" }))
  })
  it("keeps a check, with the meter's own unit", async () => {
    const sent = serve({ ...BASE, "POST /api/meters/7/checks": { status: 201, body: METER } })
    show(<Meters />)
    fireEvent.click(await screen.findByRole("button", { name: "Check in a standard: Pen 1" }))
    fireEvent.change(screen.getByLabelText("Standard, µS/cm at 25 °C"), { target: { value: "own" } })
    type("Printed on the bottle, µS/cm", "500")
    type("The meter shows, µS/cm", "480")
    fireEvent.click(screen.getByRole("button", { name: "Keep the check" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({ standard: "own", own_uS_cm: "500", shown: "480", adjusted: false }))
  })
  it("adds a ppm meter with its scale", async () => {
    const sent = serve({ ...BASE, "POST /api/meters": { status: 201, body: { id: 9 } } })
    show(<Meters />)
    fireEvent.click(await screen.findByRole("button", { name: "Add a meter" }))
    type("Name", "Second")
    await screen.findByRole("option", { name: "ppm" })
    fireEvent.change(screen.getByLabelText("It shows"), { target: { value: "ppm" } })
    fireEvent.change(screen.getByLabelText("ppm scale"), { target: { value: "0.64" } })
    fireEvent.click(screen.getByRole("button", { name: "Keep the meter" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({ name: "Second", unit: "ppm", scale: "0.64" }))
  })
})

describe("readings", () => {
  it("takes the meter the water was last read with, and asks no unit of it", async () => {
    const sent = serve({ ...BASE, "POST /api/waters/1/readings": { status: 201, body: read(9, "2026-11-23", 33) } })
    show(<ReadingForm waters={PAGE.waters} today="2026-11-23" chosen={1} onClose={() => undefined} />)
    type(await screen.findByLabelText("The meter shows").then(() => "The meter shows"), "31.4")
    expect(screen.queryByLabelText("Unit")).toBeNull()
    fireEvent.click(screen.getByRole("button", { name: "Keep the reading" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({ value: "31.4", unit: "µS/cm", meter_id: 7, origin: "typed", trace: [], amounts: [] }))
  })
  it("sends a strip's range with its unit and no conductivity", async () => {
    const sent = serve({ ...BASE, "POST /api/waters/4/readings": { status: 201, body: { ...read(9, "2026-11-23", 0), value: null, ec25_uS_cm: null } } })
    show(<ReadingForm waters={PAGE.waters} today="2026-11-23" chosen={4} onClose={() => undefined} />)
    await screen.findByLabelText("Unit") // never read: no usual meter
    type("Hardness", "3-6")
    fireEvent.change(screen.getByLabelText("Unit of hardness"), { target: { value: "°dH" } })
    fireEvent.click(screen.getByRole("button", { name: "Keep the reading" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({ value: "", amounts: [{ quantity: "hardness", typed: "3-6", unit: "°dH" }] }))
    await screen.findByText("Kept.")
  })
  it("fills in what the pen settled at and keeps its trace", async () => {
    const settled: Schemas["PenOut"] = { ...PEN, reading: true, settled: true, value_uS_cm: 32.46, corrected_uS_cm: 34.3, temperature_C: 18.12, meter_id: 7, trace: [{ t_s: 0, ec_uS_cm: 10 }, { t_s: 2, ec_uS_cm: 32.4 }] }
    const sent = serve({ ...BASE, "PUT /api/pen/simulated": { body: PEN }, "POST /api/pen/start": { body: settled }, "POST /api/waters/1/readings": { status: 201, body: read(9, "2026-11-23", 34) } })
    show(<ReadingForm waters={PAGE.waters} today="2026-11-23" chosen={1} onClose={() => undefined} />)
    fireEvent.click(await screen.findByRole("button", { name: "Read the pen" }))
    await waitFor(() => expect((screen.getByLabelText("The meter shows") as HTMLInputElement).value).toBe("32.5"))
    screen.getByText("Settled when all samples lie within 1 %.")
    fireEvent.click(screen.getByRole("button", { name: "Keep the reading" }))
    await waitFor(() => expect(sent.find((s) => s.path.endsWith("/readings"))?.body).toMatchObject({ origin: "pen", meter_id: 7, trace: [{ t_s: 0 }, { t_s: 2 }] }))
  })
  it("says why the pen broke off and fills nothing in", async () => {
    serve({ ...BASE, "PUT /api/pen/simulated": { body: PEN }, "POST /api/pen/start": { body: { ...PEN, reading: true, problem: "The pen was unplugged. Nothing was kept." } } })
    show(<ReadingForm waters={PAGE.waters} today="2026-11-23" chosen={1} onClose={() => undefined} />)
    fireEvent.click(await screen.findByRole("button", { name: "Read the pen" }))
    expect((await screen.findByRole("alert")).textContent).toContain("Nothing was kept.")
    expect((screen.getByLabelText("The meter shows") as HTMLInputElement).value).toBe("")
  })
  it("assigns what a logger posted", async () => {
    const sent = serve({ ...BASE, "GET /api/inbox": { body: [{ id: 5, device: "urn:dev:ops:probe", meter: null, at: "2026-11-23T05:00:00", ec_uS_cm: 35, temperature_C: 9.5, pH: null }] }, "POST /api/inbox/5/keep": { status: 201, body: read(9, "2026-11-23", 35) } })
    show(<Inbox page={PAGE} chosen={2} />)
    fireEvent.change(await screen.findByLabelText("Water it was taken in"), { target: { value: "1" } })
    fireEvent.click(screen.getByRole("button", { name: "Keep as a reading" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toEqual({ water_id: 1 }))
  })
  it("shows the row and the reason of a refused file and keeps what was pasted", async () => {
    serve({ ...BASE, "POST /api/readings/import": { status: 422, body: { detail: "Row 3, column “value”: Value “x” is not a number." } } })
    show(<FileImport what="readings" onClose={() => undefined} />)
    type("Or paste it here", "water,date,value")
    fireEvent.click(screen.getByRole("button", { name: "Take it in" }))
    expect((await screen.findByRole("alert")).textContent).toContain("Row 3, column “value”")
    expect((screen.getByLabelText("Or paste it here") as HTMLTextAreaElement).value).toBe("water,date,value")
  })
})

describe("sources and reports", () => {
  it("asks which kind of soft", async () => {
    const sent = serve({ ...BASE, "POST /api/waters": { status: 201, body: { id: 5 } } })
    show(<SourceForm onClose={() => undefined} />)
    await screen.findByText("One entry for each barrel.")
    fireEvent.change(screen.getByLabelText("Kind"), { target: { value: "softened" } })
    screen.getByText("Which is yours?", { exact: false })
    type("Name", "Tap")
    type("Litres on hand", "12,5")
    fireEvent.click(screen.getByRole("button", { name: "Keep the source" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({ name: "Tap", kind: "softened", on_hand_L: "12,5", collected_on: null }))
  })
  it("tells what is known, not known, done, and to be watched", () => {
    serve(BASE)
    const effect = { removed_pct: 4, low_pct: 1, high_pct: 7, seen: true, sentence: "4 %: it changes taste, not salt." }
    show(<SourceCard today="2026-11-23" water={water(1, "Cistern", 34, {
      tests: [{ quantity: "Na", on: "2026-11-01", low: 3, high: 5, typed: "3-5", unit: "mg/L" }], unknown: ["fluoride"], treatments: [{ id: 2, on: "2026-10-21", kind: "carbon", in_force: false, note: "jug", effect }],
      watch: { ...WATCH, concern: "look", rising: true, sentences: ["Rises by 3 µS/cm a month. Likely: evaporation."] },
    })} />)
    screen.getByText("Rises by 3 µS/cm a month. Likely: evaporation.")
    screen.getByText("Not known: fluoride.")
    screen.getByText("Known: Na 3 to 5 mg/L.")
    screen.getByText("(no longer acts)", { exact: false })
    screen.getByText("4 %: it changes taste, not salt.", { exact: false })
    screen.getByText("40 L on hand of 200 collected 20 Nov", { exact: false })
  })
  it("shows a report's verdict, its causes and what it lacks", async () => {
    const review: Schemas["ReportReview"] = { balance: { cations_meq_L: 5, anions_meq_L: 6.6, error_pct: -13.8, verdict: "stop", limit_pct: 2, within_laboratory_limit: false, causes: ["alkalinity may be given as HCO3, not as CaCO3"], missing: ["SO4"], sentence: "Out of balance by -13.8 %." }, computed_uS_cm: 480, reported_uS_cm: null, ratio: null, hardness_mg_L_CaCO3: null, alkalinity_mg_L_CaCO3: 268, carbonate_hardness_mg_L_CaCO3: null, sar: null, sentences: ["Out of balance by -13.8 %."] }
    serve({ ...BASE, "GET /api/reports": { body: [{ id: 1, water_id: 2, water: "Borehole", on: "2026-08-19", laboratory: "Ansa", reported_uS_cm: null, lines: [{ quantity: "Na", on: "2026-08-19", low: 0, high: 0.02, typed: "<0.02", unit: "mg/L" }], review }] } })
    show(<Reports page={PAGE} chosen={2} />)
    await screen.findByText("Possible cause: alkalinity may be given as HCO3, not as CaCO3.")
    screen.getByText("SO4")
    screen.getByText("needs calcium and magnesium")
    await screen.findByText("sodium <0.02 mg/L")
  })
  it("types a report, each line in its unit", async () => {
    const sent = serve({ ...BASE, "GET /api/reports": { body: [] }, "POST /api/waters/2/reports": { status: 201, body: { id: 3 } } })
    show(<Reports page={PAGE} chosen={2} />)
    fireEvent.click(await screen.findByRole("button", { name: "Type a report" }))
    await screen.findByLabelText("Sodium")
    type("Sodium", "<0,02")
    fireEvent.change(screen.getByLabelText("Unit of sodium"), { target: { value: "mmol/L" } })
    fireEvent.click(screen.getByRole("button", { name: "Keep the report" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({ lines: [{ quantity: "Na", typed: "<0,02", unit: "mmol/L" }] }))
  })
  it("answers for a plant that is not kept", async () => {
    const options = { body: { ...SETTINGS["GET /api/options"].body, profiles: [{ value: "disa", label: "Disa" }, { value: "fern", label: "Ferns" }] } }
    serve({ ...BASE, "GET /api/options": options, "GET /api/waters/1/verdict/fern": computed({ amount: "over", limit_uS_cm: 30, kind: "unknown", kind_line: "sodium not known" }), "GET /api/waters/1/remedies/fern": computed({ action: "use another", sentence: "Use Unit instead.", other: "Unit", source_share: null, price_per_L: null, alternative: "Blend 1 part to 2 with Unit." }) })
    show(<AnyPlant page={PAGE} water={water(1, "Cistern", 34)} />)
    const select = await screen.findByLabelText("Another kind of plant")
    expect(within(select).queryByText("Disa")).toBeNull()
    fireEvent.change(select, { target: { value: "fern" } })
    await screen.findByText("Use Unit instead. Or: Blend 1 part to 2 with Unit.")
  })
})

describe("the drawings and the doors of the tools", () => {
  it("says its range to those who cannot see it", () => {
    serve(BASE)
    show(<LineChart points={[{ on: "2026-10-01", value: 97 }, { on: "2026-11-01", value: 94 }]} today="2026-11-23" unit="% rejected" limit={92} />)
    screen.getByRole("img", { name: "2 values, from 97 to 94 % rejected" })
  })
  it("opens one tool at a time and closes it again", async () => {
    serve({ ...BASE, "GET /api/water/share-out": { status: 500, body: { detail: "Something broke." } }, "GET /api/inbox": { body: [] } })
    show(<Tools page={PAGE} chosen={1} />)
    fireEvent.click(screen.getByRole("button", { name: "Share out" }))
    expect((await screen.findByRole("alert")).textContent).toBe("Something broke.")
    fireEvent.click(screen.getByRole("button", { name: "Inbox and files" }))
    await screen.findByText("The inbox is empty.", { exact: false })
    expect(screen.queryByRole("region", { name: "Tool: Share out" })).toBeNull()
    fireEvent.click(screen.getByRole("button", { name: "Inbox and files" }))
    expect(screen.queryByRole("region", { name: /Tool/ })).toBeNull()
  })
})
