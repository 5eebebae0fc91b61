import { fireEvent, screen, waitFor, within } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../../api/client"
import { serve, show, WORKING } from "../../../testing/harness.test"
import { asked, BASE, computed, PAGE, type } from "../samples.test"
import { BlendTool } from "./BlendTool"
import { MembraneTool } from "./MembraneTool"
import { ShareTool } from "./ShareTool"

describe("blend", () => {
  const BLEND: Schemas["Blend"] = {
    parts: [
      { name: "Cistern", share: 0.88, litres: 8.8 },
      { name: "Borehole", share: 0.12, litres: 1.2 },
    ],
    ec25_uS_cm: 120,
    straight_line_ec_uS_cm: 111,
    alkalinity_mg_L_CaCO3: 34,
    hardness_mg_L_CaCO3: null,
    cost: null,
    method: "ions",
  }
  it("starts with the water most unlike the chosen one and follows what is typed", async () => {
    const sent = serve({ ...BASE, "POST /api/water/blend": computed(BLEND) })
    show(<BlendTool page={PAGE} chosen={1} />)
    expect(await screen.findByText("8.8")).toBeTruthy()
    expect(asked(sent)).toMatchObject({
      water_ids: [1, 2],
      targets: [{ quantity: "ec", value: "120", sense: "about" }],
      mind_stock: true,
    })
    screen.getByText("not known: a price is missing", { exact: false })
    fireEvent.change(screen.getByLabelText("And at most"), { target: { value: "alkalinity" } })
    type("At most", "40")
    fireEvent.change(screen.getByLabelText("Aim"), { target: { value: "least of the scarce" } })
    screen.getByLabelText("Scarce")
    await waitFor(() =>
      expect(asked(sent)).toMatchObject({
        objective: "least of the scarce",
        targets: [{ quantity: "ec" }, { quantity: "alkalinity", value: "40", sense: "at most" }],
      }),
    )
  })
  it("says which bound fails and shows no stale answer", async () => {
    serve({
      ...BASE,
      "POST /api/water/blend": {
        status: 422,
        body: {
          detail: "EC 5 µS/cm cannot be blended: these waters reach 34 to 754.",
          errors: [
            {
              pointer: "/targets",
              detail: "EC 5 µS/cm cannot be blended: these waters reach 34 to 754.",
            },
          ],
        },
      },
    })
    show(<BlendTool page={PAGE} chosen={1} />)
    expect((await screen.findByRole("alert")).textContent).toContain("these waters reach 34 to 754")
    expect(screen.queryByText("a straight line would say", { exact: false })).toBeNull()
  })
})

describe("share out", () => {
  const SHARE: Schemas["SharePage"] = {
    not_entered: ["Cistern"],
    unread: ["Jug"],
    answer: {
      working: WORKING,
      result: {
        groups: [
          {
            name: "Disa",
            wanted_L: 2,
            portions: [{ water: "Unit", litres: 1.5 }],
            short_L: 0.5,
            ec25_uS_cm: 24,
            buy: "Unit",
          },
          { name: "Fern", wanted_L: 1, portions: [], short_L: 1, ec25_uS_cm: null, buy: null },
        ],
        left_L: { Unit: 0 },
        short_L: 1.5,
        purchases: [{ water: "Unit", litres: 0.5, cost: 0.01 }],
        cost_per_week: 0.01,
        cost_per_month: 0.043,
      },
    },
  }
  it("names who goes short, what to get, and what was not entered", async () => {
    serve({ ...BASE, "GET /api/water/share-out": { body: SHARE } })
    show(<ShareTool />)
    await screen.findByText("0.5 L: get Unit")
    screen.getByText("1 L: nothing on sale suits it")
    screen.getByText("Litres not entered, counted as none: Cistern.")
    screen.getByText("Left out, never read: Jug.")
    expect(
      within(screen.getByRole("region", { name: "Who gets which water" })).getAllByRole("row"),
    ).toHaveLength(3)
  })
})

describe("membrane", () => {
  const TREND: Schemas["MembraneTrend"] = {
    rejections: [
      { on: "2026-08-01", rejection_pct: 95 },
      { on: "2026-11-01", rejection_pct: 89 },
    ],
    now_pct: 89,
    trend_pct_month: null,
    trend_low_pct_month: null,
    trend_high_pct_month: null,
    floor_pct: 90,
    below_floor_on: null,
    below_floor_earliest: null,
    below_floor_latest: null,
    recovery_pct: null,
    concentrate_L_per_L: null,
    concentrate_uS_cm: null,
    state: "below the floor",
    alarm: true,
    sentence: "Rejects 89.0 %, below your floor of 90 %: replace or inspect the membrane.",
  }
  const page = (answer: Schemas["MembranePage"]["answer"]): Schemas["MembranePage"] => ({
    water_id: 3,
    floor_pct: 90,
    pairs: [{ id: 4, on: "2026-11-01", feed_uS_cm: 400, permeate_uS_cm: 44 }],
    answer,
  })
  it("raises its alarm and tells what is missing for more", async () => {
    const sent = serve({
      ...BASE,
      "GET /api/water/membrane/3": { body: page({ result: TREND, working: WORKING }) },
      "POST /api/water/membrane/3/pairs": { body: page(null) },
    })
    show(<MembraneTool page={PAGE} chosen={1} />)
    expect((await screen.findByRole("alert")).textContent).toContain("replace or inspect")
    screen.getByText("three days with a pair are needed")
    fireEvent.click(screen.getByRole("button", { name: "Enter a pair" }))
    type("Feed, µS/cm", "404")
    type("Permeate, µS/cm", "24")
    fireEvent.click(screen.getByRole("button", { name: "Save the pair" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({
        feed: "404",
        permeate: "24",
      }),
    )
  })
  it("teaches who has no unit", () => {
    serve(BASE)
    show(<MembraneTool page={{ ...PAGE, waters: PAGE.waters.slice(0, 2) }} chosen={1} />)
    screen.getByText("Add your reverse-osmosis unit as a source", { exact: false })
  })
})
