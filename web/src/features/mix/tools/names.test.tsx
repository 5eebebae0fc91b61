import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../../api/client"
import { serve, show, WORKING } from "../../../testing/harness.test"
import { asked, BASE, computed, tool, type } from "../samples.test"
import { MistTool } from "./MistTool"
import { NamesTool } from "./NamesTool"
import { SchoolsTool } from "./SchoolsTool"
import { SpoonTool } from "./SpoonTool"

describe("small measures", () => {
  it("plans the mist bottle that stands on the shelf", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/mix/serial": computed<Schemas["SerialDilution"]>({
        steps: [
          { draw_mL: 20, to_mL: 100 },
          { draw_mL: 12.5, to_mL: 500 },
        ],
        strengths_mg_L: [4000, 100],
        final_mg_L: 100,
        error_pct: 2.1,
        sentence: "Draw 20 mL up to 100 mL, then 12.5 mL up to 500 mL.",
      }),
    })
    show(<MistTool {...tool()} />)
    await waitFor(() => expect(screen.getAllByRole("listitem")).toHaveLength(2))
    expect(asked(sent)).toMatchObject({ final_mL: "500" })
    expect(screen.getAllByRole("listitem")[1]?.textContent).toBe(
      "Draw 12.5 mL, fill up to 500 mL, shake: 100 mg/L.",
    )
  })
  it("weighs level spoons, waits for three, and keeps the measure", async () => {
    const sent = serve({
      ...BASE,
      "GET /api/shelf": {
        body: {
          measures: [{ id: 1, name: "blue spoon", product: "Nitrate feed", each: 1.14, unit: "g" }],
        },
      },
      "POST /api/measures/preview": computed<Schemas["Calibrated"]>({
        kind: "spoon",
        each: 2.33,
        unit: "g",
        sd: 0.1,
        cv: 0.04,
        mean_error_pct: 1.2,
        weighings: 30,
        bulk_density_g_mL: 0.93,
        sentence: "A level spoon is 2.33 ± 0.1 g.",
      }),
      "POST /api/measures": { status: 201, body: { id: 3 } },
    })
    show(<SpoonTool {...tool()} />)
    await screen.findByText("blue spoon, Nitrate feed")
    type("Name of the measure", "tin scoop")
    type("Weighing 1, g", "23")
    type("Weighing 2, g", "24")
    expect(asked(sent)).toBeUndefined()
    type("Weighing 3, g", "23")
    type("Level ones in each weighing", "10")
    await screen.findByText(/Bulk density 0.93 g\/mL/)
    expect(asked(sent)).toMatchObject({
      weighings: ["23", "24", "23", "", ""],
      levels_each: 10,
      product_id: 1,
    })
    fireEvent.click(screen.getByRole("button", { name: "Save the measure" }))
    await screen.findByText("tin scoop is saved.")
  })
  it("counts drops instead of weighing them", async () => {
    const sent = serve({
      ...BASE,
      "GET /api/shelf": { body: { measures: [] } },
      "POST /api/measures/preview": computed<Schemas["Calibrated"]>({
        kind: "dropper",
        each: 0.04,
        unit: "mL",
        sd: 0.001,
        cv: 0.03,
        mean_error_pct: 2,
        weighings: 1,
        bulk_density_g_mL: null,
        sentence: "A drop holds 0.04 mL (25 to the millilitre).",
      }),
    })
    show(<SpoonTool {...tool()} />)
    fireEvent.change(screen.getByLabelText("It is a"), { target: { value: "dropper" } })
    type("Count 1", "25")
    await screen.findByText(/25 to the millilitre/)
    expect(asked(sent)).toMatchObject({ kind: "dropper" })
    expect(screen.queryByLabelText("Volume, if known, mL")).toBeNull()
  })
})

describe("names and schools", () => {
  it("says a strength in every other way, the gallons apart", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/mix/names": computed<Schemas["Equivalents"]>({
        fraction: 0.25,
        nitrogen_mg_L: 33,
        elements_mg_L: { N: 33, K: 31 },
        ec_added_uS_cm: 300,
        ec_total_uS_cm: 334,
        dose_g_L: 0.25,
        dose_mL_L: null,
        per_us_gal: 0.946,
        per_imp_gal: 1.137,
        oz_per_100_us_gal: 3.34,
        sentences: [
          "“Reduce by three quarters” keeps one quarter.",
          "0.946 g for a US gallon, 1.14 g for an imperial one: say which.",
        ],
      }),
    })
    show(<NamesTool {...tool()} />)
    await screen.findByText("“Reduce by three quarters” keeps one quarter.")
    expect(asked(sent)).toMatchObject({ strength: "fraction", value: "reduce by three quarters" })
    screen.getByText("N 33, K 31")
    expect(screen.getByRole("button", { name: /For an imperial gallon: 1.14 g/ })).toBeTruthy()
  })
  const load = (part: Partial<Schemas["SchoolLoad"]>) => ({
    result: {
      applied_mg_L_week: 13.1,
      retained_mg_L_week: 5.2,
      root_low_uS_cm: 337,
      root_high_uS_cm: 545,
      root_mean_uS_cm: 452,
      leaf_mg_week: null,
      sentence: "",
      ...part,
    },
    working: WORKING,
  })
  it("holds schools side by side and lets each be one’s own", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/mix/schools/load": {
        body: [
          { id: "thin", load: load({}) },
          { id: "mist", load: load({ leaf_mg_week: 0.045, root_mean_uS_cm: null }) },
        ],
      },
      "PUT /api/mix/schools/thin": { body: { id: 5 } },
    })
    show(<SchoolsTool {...tool()} />)
    const row = await screen.findByRole("row", { name: /^Thin and constant/ })
    expect(row.textContent).toContain("50 mg/L N, 3 of 4 waterings")
    expect(row.textContent).toContain("5.2 kept")
    expect(screen.getByRole("row", { name: /^Leaf spray/ }).textContent).toContain(
      "the water’s own",
    )
    fireEvent.change(screen.getByLabelText("On this pot"), { target: { value: "1" } })
    await waitFor(() =>
      expect(asked(sent)).toMatchObject({ pot_id: 1, water_id: 1, school_ids: ["thin", "mist"] }),
    )
    fireEvent.click(await screen.findByRole("button", { name: "Edit Thin and constant" }))
    type("Nitrogen of a feed, mg/L", "25")
    fireEvent.click(screen.getByRole("button", { name: "Save my figures" }))
    await screen.findByText("Thin and constant: your figures are in force.")
    expect(asked(sent, "/api/mix/schools/thin")).toMatchObject({
      n_mg_L: "25",
      cycle: 4,
      feeds: 3,
      route: "root",
      seen: { name: "Thin and constant", n_mg_L: "50", cycle: 4, feeds: 3, route: "root" },
    })
  })
})
