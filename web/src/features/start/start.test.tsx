import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { serve, SETTINGS, show, WORKING } from "../../testing/harness.test"
import { NOTHING, sent, unitOf } from "./answers"
import { Screen } from "./Screen"

const drawn = (more: Partial<Schemas["FirstPlan"]> = {}): Schemas["Drawn"] => ({
  lines: [],
  waters: [
    {
      kind: "rain",
      name: "Rain",
      low_uS_cm: 5,
      high_uS_cm: 60,
      measured: false,
      sentence: "",
      working: WORKING,
    },
  ],
  plan: {
    working: WORKING,
    result: {
      plants: [{ kind: "disa", name: "Disa", limit_uS_cm: 120, pots: 2 }],
      verdicts: [{ kind: "disa", water: 0, answer: "yes", one_in: 1, word: "yes" }],
      serves_all: [0],
      thinner: 0,
      low_L_week: 1,
      high_L_week: 3,
      missing: [{ what: "A feed", settles: "can wait.", verdicts: 0, water: null }],
      sentence: "Rain alone serves all 2 pots.",
      caution: "",
      ...more,
    },
  },
})
const served = () =>
  serve({
    "GET /api/settings": { body: SETTINGS },
    "GET /api/start": { body: { empty: true, waters: [{ kind: "rain", name: "Rain" }] } },
    "POST /api/start/drawn": { body: drawn() },
    "POST /api/start": { status: 201, body: { pots: 0, waters: 1, meters: 0 } },
  })

describe("the start page", () => {
  it("draws each answer and offers to save once there is one", async () => {
    const calls = served()
    show(<Screen />)
    const rain = await screen.findByRole("button", { name: "Rain" })
    expect(screen.queryAllByRole("button", { name: "Save" })).toHaveLength(0)
    expect(screen.getByRole("button", { name: "Nothing" }).getAttribute("aria-pressed")).toBe(
      "true",
    )
    fireEvent.click(rain)
    expect(await screen.findByText("Rain alone serves all 2 pots.")).toBeTruthy()
    expect(screen.getByRole("img", { name: /Rain: 5 to 60, not read yet/ })).toBeTruthy()
    fireEvent.click(screen.getAllByRole("button", { name: "Save" })[0] as HTMLElement)
    await waitFor(() =>
      expect(calls.find((c) => c.path === "/api/start" && c.method === "POST")?.body).toMatchObject(
        { waters: [{ kind: "rain", value: null }], lines: [] },
      ),
    )
  })

  it("asks what the pen shows only of who has one", async () => {
    served()
    show(<Screen />)
    fireEvent.click(await screen.findByRole("button", { name: "Rain" }))
    expect(screen.queryByLabelText("Rain: the pen shows")).toBeNull()
    fireEvent.click(screen.getByRole("button", { name: "EC pen" }))
    expect(screen.getByLabelText("Rain: the pen shows")).toBeTruthy()
    fireEvent.click(screen.getByRole("button", { name: "Nothing" }))
    expect(screen.queryByLabelText("Rain: the pen shows")).toBeNull()
  })

  it("reads a water in the unit of the pen at hand until another is chosen", () => {
    const w = { kind: "rain" as const, value: "", unit: null, scale: null }
    expect(unitOf(w, ["ppm pen"])).toBe("ppm")
    expect(unitOf(w, ["ppm pen", "EC pen"])).toBe("µS/cm")
    expect(unitOf({ ...w, unit: "mS/cm" }, ["ppm pen"])).toBe("mS/cm")
    expect(sent({ ...NOTHING, waters: [w] }).waters[0]?.value).toBeNull()
  })
})
