import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../../api/client"
import { serve, show } from "../../../testing/harness.test"
import { asked, BASE, computed, PAGE, water } from "../samples.test"
import { AlkalinityTool } from "./AlkalinityTool"
import { BoilTool } from "./BoilTool"
import { ChlorineTool } from "./ChlorineTool"
import { Tools } from "./Tools"
import { LineChart } from "../LineChart"

describe("chlorine, boiling, acid", () => {
  it("fills in what was tested and says what standing can and cannot do", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/water/dechlorinate": computed<Schemas["Dechlorination"]>({
        free_mg_L: 0.1,
        combined_mg_L: 0.5,
        thiosulfate_mg: 42,
        least_mg: 5.25,
        anhydrous_mg: 27,
        stock_mL: 4.2,
        ascorbic_mg: 15,
        wait_minutes: 30,
        ec_rise_uS_cm: 4.5,
        sodium_rise_mg_L: 0.8,
        ammonium_N_mg_L: 0.1,
        ways: [{ name: "Standing overnight", works: false, how: "Does not work on chloramine." }],
      }),
    })
    const tested = water(2, "Tap", 400, {
      disinfectant: "chloramine",
      tests: [
        {
          quantity: "free chlorine",
          on: "2026-11-01",
          low: 0.1,
          high: 0.1,
          typed: "0.1",
          unit: "mg/L",
        },
      ],
    })
    show(<ChlorineTool page={{ ...PAGE, waters: [tested] }} chosen={2} />)
    await screen.findByText("42")
    expect(asked(sent)).toMatchObject({ free: "0.1", supplier: "chloramine" })
    expect(screen.getByRole("row", { name: /Standing overnight/ }).textContent).toContain("no")
    screen.getByText("No reading falls", { exact: false })
  })
  it("boils only what is known", async () => {
    serve({
      ...BASE,
      "POST /api/water/boil": {
        status: 422,
        body: {
          detail: "Calcium or alkalinity of this water is not known.",
          errors: [
            { pointer: "/ions", detail: "Calcium or alkalinity of this water is not known." },
          ],
        },
      },
    })
    show(<BoilTool page={PAGE} chosen={1} />)
    expect((await screen.findByRole("alert")).textContent).toContain("is not known")
  })
  it("keeps acids locked until the lines were confirmed", async () => {
    const sent = serve({
      ...BASE,
      "GET /api/water/acids": {
        body: { read_on: null, safety: ["Add acid to water, never water to acid."], acids: [] },
      },
      "POST /api/water/acids/read": { status: 201, body: { id: 1 } },
    })
    show(<AlkalinityTool page={PAGE} chosen={2} />)
    await screen.findByText("Add acid to water, never water to acid.")
    expect(screen.queryByLabelText("Acid")).toBeNull()
    fireEvent.click(screen.getByRole("button", { name: "I have read this" }))
    await waitFor(() =>
      expect(sent.some((s) => s.path === "/api/water/acids/read" && s.key)).toBe(true),
    )
  })
  it("asks a liquid's strength and puts a refusal beside it", async () => {
    const acid = (id: string, state: "dry" | "liquid", household: boolean) => ({
      id,
      label: `${id} acid`,
      state,
      household,
      strengths_pct: state === "dry" ? [] : [38, 60],
      note: "",
    })
    serve({
      ...BASE,
      "GET /api/water/acids": {
        body: {
          read_on: "2026-11-01",
          safety: ["Goggles."],
          acids: [acid("citric", "dry", true), acid("nitric", "liquid", false)],
        },
      },
      "POST /api/water/acidify": {
        status: 422,
        body: {
          detail: "Strength of the nitric acid is missing.",
          errors: [{ pointer: "/strength_pct", detail: "Strength of the nitric acid is missing." }],
        },
      },
    })
    show(<AlkalinityTool page={PAGE} chosen={2} />)
    fireEvent.change(await screen.findByLabelText("Acid"), { target: { value: "nitric" } })
    screen.getByText("nitric acid (not for the household)")
    const field = screen.getByLabelText("Strength on the bottle, % by weight")
    await waitFor(() => expect(field.getAttribute("aria-invalid")).toBe("true"))
  })
})

describe("the drawings and the doors of the tools", () => {
  it("says its range to those who cannot see it", () => {
    serve(BASE)
    show(
      <LineChart
        points={[
          { on: "2026-10-01", value: 97 },
          { on: "2026-11-01", value: 94 },
        ]}
        today="2026-11-23"
        unit="% rejected"
        limit={92}
      />,
    )
    screen.getByRole("img", { name: "2 values, from 97 to 94 % rejected" })
  })
  it("opens one tool at a time and closes it again", async () => {
    serve({
      ...BASE,
      "GET /api/water/share-out": { status: 500, body: { detail: "Something broke." } },
      "GET /api/inbox": { body: [] },
    })
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
