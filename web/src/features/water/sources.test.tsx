import { fireEvent, screen, waitFor, within } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { serve, SETTINGS, show } from "../../testing/harness.test"
import { BASE, computed, PAGE, type, WATCH, water } from "./samples.test"
import { AnyPlant } from "./AnyPlant"
import { Reports } from "./reports/Reports"
import { SourceCard } from "./SourceCard"
import { SourceForm } from "./SourceForm"

describe("sources and reports", () => {
  it("asks which kind of soft", async () => {
    const sent = serve({ ...BASE, "POST /api/waters": { status: 201, body: { id: 5 } } })
    show(<SourceForm onClose={() => undefined} />)
    await screen.findByText("One entry for each barrel.")
    fireEvent.change(screen.getByLabelText("Kind"), { target: { value: "softened" } })
    screen.getByText("Which is yours?", { exact: false })
    type("Name", "Tap")
    type("Litres on hand", "12,5")
    fireEvent.click(screen.getByRole("button", { name: "Save the source" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({
        name: "Tap",
        kind: "softened",
        on_hand_L: "12,5",
        collected_on: null,
      }),
    )
  })
  it("tells what is known, not known, done, and to be watched", () => {
    serve(BASE)
    const effect = {
      removed_pct: 4,
      low_pct: 1,
      high_pct: 7,
      seen: true,
      sentence: "4 %: it changes taste, not salt.",
    }
    show(
      <SourceCard
        today="2026-11-23"
        water={water(1, "Cistern", 34, {
          tests: [
            { quantity: "Na", on: "2026-11-01", low: 3, high: 5, typed: "3-5", unit: "mg/L" },
          ],
          unknown: ["fluoride"],
          treatments: [
            { id: 2, on: "2026-10-21", kind: "carbon", in_force: false, note: "jug", effect },
          ],
          watch: {
            ...WATCH,
            concern: "look",
            rising: true,
            sentences: ["Rises by 3 µS/cm a month. Likely: evaporation."],
          },
        })}
      />,
    )
    screen.getByText("Rises by 3 µS/cm a month. Likely: evaporation.")
    screen.getByText("Not known: fluoride.")
    screen.getByText("Known: Na 3 to 5 mg/L.")
    screen.getByText("(no longer acts)", { exact: false })
    screen.getByText("4 %: it changes taste, not salt.", { exact: false })
    screen.getByText("40 L on hand of 200 L collected 20 Nov", { exact: false })
  })
  it("shows a report's verdict, its causes and what it lacks", async () => {
    const review: Schemas["ReportReview"] = {
      balance: {
        cations_meq_L: 5,
        anions_meq_L: 6.6,
        error_pct: -13.8,
        verdict: "stop",
        limit_pct: 2,
        within_laboratory_limit: false,
        causes: ["alkalinity may be given as HCO3, not as CaCO3"],
        missing: ["SO4"],
        sentence: "Out of balance by -13.8 %.",
      },
      computed_uS_cm: 480,
      reported_uS_cm: null,
      ratio: null,
      hardness_mg_L_CaCO3: null,
      alkalinity_mg_L_CaCO3: 268,
      carbonate_hardness_mg_L_CaCO3: null,
      sar: null,
      sentences: ["Out of balance by -13.8 %."],
    }
    serve({
      ...BASE,
      "GET /api/reports": {
        body: [
          {
            id: 1,
            water_id: 2,
            water: "Borehole",
            on: "2026-08-19",
            laboratory: "Ansa",
            reported_uS_cm: null,
            lines: [
              {
                quantity: "Na",
                on: "2026-08-19",
                low: 0,
                high: 0.02,
                typed: "<0.02",
                unit: "mg/L",
              },
            ],
            review,
          },
        ],
      },
    })
    show(<Reports page={PAGE} chosen={2} />)
    await screen.findByText("Possible cause: alkalinity may be given as HCO3, not as CaCO3.")
    screen.getByText("SO4")
    screen.getByText("needs calcium and magnesium")
    await screen.findByText("sodium <0.02 mg/L")
  })
  it("types a report, each line in its unit", async () => {
    const sent = serve({
      ...BASE,
      "GET /api/reports": { body: [] },
      "POST /api/waters/2/reports": { status: 201, body: { id: 3 } },
    })
    show(<Reports page={PAGE} chosen={2} />)
    fireEvent.click(await screen.findByRole("button", { name: "Type a report" }))
    await screen.findByLabelText("Sodium")
    type("Sodium", "<0,02")
    fireEvent.change(screen.getByLabelText("Unit of sodium"), { target: { value: "mmol/L" } })
    fireEvent.click(screen.getByRole("button", { name: "Save the report" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({
        lines: [{ quantity: "Na", typed: "<0,02", unit: "mmol/L" }],
      }),
    )
  })
  it("answers for a plant that is not kept", async () => {
    const options = {
      body: {
        ...SETTINGS["GET /api/options"].body,
        profiles: [
          { value: "disa", label: "Disa" },
          { value: "fern", label: "Ferns" },
        ],
      },
    }
    serve({
      ...BASE,
      "GET /api/options": options,
      "GET /api/waters/1/verdict/fern": computed({
        amount: "over",
        limit_uS_cm: 30,
        kind: "unknown",
        kind_line: "sodium not known",
      }),
      "GET /api/waters/1/remedies/fern": computed({
        action: "use another",
        sentence: "Use Unit instead.",
        other: "Unit",
        source_share: null,
        price_per_L: null,
        alternative: "Blend 1 part to 2 with Unit.",
      }),
    })
    show(<AnyPlant page={PAGE} water={water(1, "Cistern", 34)} />)
    const select = await screen.findByLabelText("Another kind of plant")
    expect(within(select).queryByText("Disa")).toBeNull()
    fireEvent.change(select, { target: { value: "fern" } })
    await screen.findByText("Use Unit instead. Or: Blend 1 part to 2 with Unit.")
  })
})
