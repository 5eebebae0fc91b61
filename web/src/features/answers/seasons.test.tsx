import { screen } from "@testing-library/react"
import { Route, Routes } from "react-router"
import { describe, expect, it } from "vitest"
import { serve, SETTINGS, show } from "../../testing/harness.test"
import { SeasonsScreen } from "./SeasonsScreen"

describe("seasons", () => {
  it("says one season so far where there is no second", async () => {
    serve({
      ...SETTINGS,
      "GET /api/pots/21/seasons": {
        body: {
          today: "2026-11-23",
          pot_id: 21,
          code: "D-09",
          name: "Dendrobium",
          by: "seasons",
          cue: "the day it woke",
          seasons: [
            {
              name: "2026",
              woke_on: "2026-04-02",
              days: 235,
              pours: [],
              heights: [],
              leaves: [],
              nights: [],
            },
          ],
          stairs: [[]],
          totals: [],
          overlay: null,
          sentence: "One season so far. Next year this page compares.",
          poisonous: true,
        },
      },
    })
    show(
      <Routes>
        <Route path="/seasons/:id" element={<SeasonsScreen />} />
      </Routes>,
      "/seasons/21",
    )
    expect(
      (await screen.findAllByText("One season so far. Next year this page compares.")).length,
    ).toBe(2)
    expect(screen.getByText(/Poisonous to pets/)).toBeTruthy()
  })
})
