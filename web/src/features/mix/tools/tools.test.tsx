import { fireEvent, screen, waitFor, within } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../../api/client"
import { serve, show, WORKING } from "../../../testing/harness.test"
import type { Draft } from "../draft"
import { asked, BASE, computed, refused, tool, type } from "../samples.test"
import { BottleLabels } from "./BottleLabels"
import { CompareTool } from "./CompareTool"
import { FitTool } from "./FitTool"
import { StockTool } from "./StockTool"

describe("recipe fit", () => {
  const FIT: Schemas["Fit"] = {
    parts: [
      {
        name: "Calcium nitrate",
        dose_g_L: 0.2357,
        amount: 1.18,
        rounded: 1,
        unit: "g",
        rounded_dose_g_L: 0.2,
      },
      {
        name: "Potassium nitrate",
        dose_g_L: 0.23,
        amount: 1.15,
        rounded: 1,
        unit: "g",
        rounded_dose_g_L: 0.2,
      },
    ],
    elements: [
      {
        element: "N",
        target_mg_L: 60,
        best_mg_L: 60,
        weighed_mg_L: 51.6,
        error_pct: -14,
        reached: true,
      },
      {
        element: "Ca",
        target_mg_L: 90,
        best_mg_L: 40,
        weighed_mg_L: 34,
        error_pct: -62,
        reached: false,
      },
    ],
    objective: 0.001,
    weighed_objective: 0.04,
    ec25_uS_cm: 513,
    nitrate_share: 1,
    cost_per_L: 0.003,
    gives: "Ca",
    sentence: "Not reachable with these products: Ca stays more than 20 % off.",
  }
  it("asks for the ticked products and the targets that were typed", async () => {
    const sent = serve({ ...BASE, "POST /api/mix/fit": computed(FIT) })
    show(<FitTool {...tool()} />)
    await screen.findByText(FIT.sentence)
    expect(asked(sent)).toMatchObject({
      product_ids: [3, 4],
      volume: "5",
      targets: [
        { element: "N", mg_L: "60" },
        { element: "P", mg_L: "" },
        { element: "K", mg_L: "" },
        { element: "Ca", mg_L: "40" },
        { element: "Mg", mg_L: "" },
      ],
    })
    const rows = within(screen.getByRole("region", { name: "Elements of the fit" })).getAllByRole(
      "row",
    )
    expect(rows[2]?.textContent).toContain("not reached")
    type("EC at most, µS/cm", "400")
    fireEvent.click(screen.getByLabelText("Magnesium sulfate"))
    await waitFor(() =>
      expect(asked(sent)).toMatchObject({ ec_cap: "400", product_ids: [3, 4, 5] }),
    )
  })
  it("takes the weighed doses to the can, the first one leading", async () => {
    let draft: Draft | null = null
    serve({ ...BASE, "POST /api/mix/fit": computed(FIT) })
    show(
      <FitTool
        {...tool((d) => {
          draft = d
        })}
      />,
    )
    fireEvent.click(await screen.findByRole("button", { name: "Take it to the can" }))
    expect(draft).toMatchObject({
      product_id: 3,
      strength: "dose",
      value: "0.2",
      volume: "5",
      also: [{ product_id: 4, dose: "0.2" }],
    })
  })
  it("puts a refusal where the answer would stand", async () => {
    serve({
      ...BASE,
      "POST /api/mix/fit": refused("Rain alone reads 34 µS/cm, over the cap of 20.", "/base"),
    })
    show(<FitTool {...tool()} />)
    expect((await screen.findByRole("alert")).textContent).toContain("over the cap of 20")
    expect(screen.queryByRole("button", { name: "Take it to the can" })).toBeNull()
  })
})

describe("compare", () => {
  const row = (name: string, part: Partial<Schemas["FeedRow"]>): Schemas["FeedRow"] => ({
    name,
    dose_g_L: 0.46,
    dose_mL_L: null,
    nitrogen_mg_L: 60,
    nitrate_mg_L: 50,
    ammonium_mg_L: 10,
    urea_mg_L: 0,
    P_mg_L: 6,
    K_mg_L: 57,
    Ca_mg_L: 37,
    Mg_mg_L: 9,
    ec_added_uS_cm: 378,
    ec_total_uS_cm: 412,
    uS_per_mg_N: 6.3,
    acidity_mg_L: -60,
    cost_per_L: 0.01,
    ...part,
  })
  it("starts with a urea feed beside the usual one and shows both in one table", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/mix/compare": computed<Schemas["Comparison"]>({
        rows: [
          row("Nitrate feed", {}),
          row("Urea feed", { urea_mg_L: 31, cost_per_L: null, dose_mL_L: 1.2 }),
        ],
        sentences: ["52 % of the nitrogen of Urea feed is urea, which the pen cannot see."],
      }),
    })
    show(<CompareTool {...tool()} />)
    await screen.findByText(/which the pen cannot see/)
    expect(asked(sent)).toMatchObject({ first_id: 1, second_id: 2, basis: "nitrogen", value: "60" })
    const table = screen.getByRole("region", { name: "Two feeds" })
    expect(within(table).getByRole("row", { name: /^Cost/ }).textContent).toBe(
      "Cost0.01 a litrenot known",
    )
    expect(within(table).getByRole("row", { name: /^Dose/ }).textContent).toContain("1.2 mL/L")
    fireEvent.change(screen.getByLabelText("Held equal"), { target: { value: "cost" } })
    await waitFor(() => expect(asked(sent)).toMatchObject({ basis: "cost" }))
  })
})

describe("stock and injector", () => {
  const CLEAR: Schemas["Clarity"] = {
    verdict: "borderline",
    sentence: "Two bottles: A with Calcium nitrate; B with the rest.",
    minerals: [
      { where: "stock", mineral: "gypsum", index: 1.2, verdict: "clouds" },
      { where: "can", mineral: "struvite", index: null, verdict: "clear" },
    ],
    solubility: [{ name: "potassium sulfate", strength_g_L: 90, limit_g_L: 52, fits: false }],
    bottles: [[0], [1, 2]],
    order: [1, 2, 0],
    strongest_times: 8.3,
    pH_can: 6,
  }
  const bottle = (letter: string, name: string): Schemas["StockBottle"] => ({
    letter,
    contents: [{ name, mass_g: 80, concentration_g_L: 80 }],
    volume_mL: 1000,
    concentration_g_L: 80,
    hazard: "Concentrate: dilute before use.",
  })
  const STOCK: Schemas["StockSolution"] = {
    mass_g: 15,
    bottle_mL: 1000,
    concentration_g_L: 15,
    draw_mL_per_L: 10,
    draw_mL: 50,
    error_pct: 1.7,
    lasts_L: 100,
    bottles: [bottle("A", "Calcium nitrate"), bottle("B", "Magnesium sulfate")],
    dilution: "1 in 100",
    keeps_weeks: 8,
    use_by: "2027-01-18",
    filled_with: "Rain",
    weigh_g: 15,
  }
  it("shows bottles A and B, the order to mix in, and keeps their labels once made", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/mix/stock": {
        body: {
          stock: { result: STOCK, working: WORKING },
          clear: { result: CLEAR, working: WORKING },
        },
      },
      "POST /api/mix/bottles": { status: 201, body: { id: 9 } },
      "GET /api/mix/bottles": { body: [] },
    })
    show(<StockTool {...tool()} />)
    await screen.findByText(/^Bottle A, 1/)
    expect(asked(sent)).toMatchObject({
      feeds: [
        { product_id: 3, dose: "0.8" },
        { product_id: 5, dose: "0.4" },
        { product_id: 6, dose: "0.15" },
      ],
      draw_mL_per_L: "10",
    })
    expect(screen.getByText(/A first, stir, then B/)).toBeTruthy()
    expect(screen.getByText(/too much/).textContent).toContain("90 of at most 52 g/L")
    expect(screen.getAllByRole("listitem").map((li) => li.textContent)).toEqual([
      "Water first.",
      "Magnesium sulfate",
      "Potassium phosphate",
      "Calcium nitrate",
      "Fill up, stir, read.",
    ])
    fireEvent.click(screen.getByRole("button", { name: "Made: save the labels" }))
    await waitFor(() => expect(asked(sent, "/api/mix/bottles")).toMatchObject({ water_id: 1 }))
    await screen.findByText(/No bottle yet/)
  })
  it("asks both meanings of a ratio of the server, and whether it stays clear at that strength", async () => {
    const made: Schemas["Injector"] = {
      litres_per_litre: 65,
      other_meaning_pct: 1.5,
      bottles: [bottle("", "Potassium nitrate")],
      feed_L: 325,
      largest_ratio: 120,
      keeps_weeks: 8,
      sentence: "1 in 65. Read the other way it would be 1.5 % off.",
    }
    const sent = serve({
      ...BASE,
      "POST /api/mix/stock": refused("clots"),
      "POST /api/mix/injector": computed(made),
      "POST /api/mix/clear": computed({
        ...CLEAR,
        verdict: "clear",
        sentence: "Stays clear in one bottle and in the can.",
      }),
    })
    show(<StockTool {...tool()} />)
    expect((await screen.findByRole("alert")).textContent).toBe("clots")
    fireEvent.change(screen.getByLabelText("Drawn by"), { target: { value: "ratio" } })
    fireEvent.change(await screen.findByLabelText("It means"), { target: { value: "1 plus n" } })
    type("Ratio, n", "64")
    await screen.findByText(/Read the other way it would be 1.5 % off/)
    expect(asked(sent, "/api/mix/injector")).toMatchObject({ ratio: "64", meaning: "1 plus n" })
    expect(asked(sent, "/api/mix/clear")).toMatchObject({ times: 65 })
    screen.getByText(/^One bottle, 1/)
  })
  it("prints labels with contents, dates and the hazard line", async () => {
    serve({
      ...BASE,
      "GET /api/mix/bottles": {
        body: [
          {
            id: 4,
            made_on: "2026-10-28",
            name: "Nitrate feed",
            letter: "B",
            contents: [{ name: "Nitrate feed", mass_g: 20, concentration_g_L: 20 }],
            volume_mL: 1000,
            draw_mL_per_L: 20,
            dilution: "1 in 50",
            hazard: "Concentrate: dilute before use.",
            use_by: "2026-12-23",
          },
        ],
      },
    })
    show(<BottleLabels />)
    const label = await screen.findByRole("article", { name: "Label of Nitrate feed, bottle B" })
    for (const line of [
      "20 g/L",
      "1 in 50",
      "Made 28 Oct 2026, use by 23 Dec 2026",
      "Concentrate: dilute before use.",
    ])
      expect(label.textContent).toContain(line)
  })
})
