import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import { serve, show } from "../../testing/harness.test"
import { SETTINGS, WORKING } from "../../testing/harness.test"
import { Screen } from "./Screen"

const MISFIT = {
  fit: "misfit",
  sentence: "A misfit here, air first.",
  aspects: [
    {
      name: "air",
      fit: "misfit",
      line: "Asks 60 to 80 % humidity; the air here has 30 to 37 %.",
      remedy: "A closed case.",
      cost: "About 5 kWh a week.",
      asks: [60, 80],
      has: [30, 37],
    },
    { name: "water", fit: "fits", line: "Rain may be given.", remedy: "", cost: "" },
  ],
}
const KIND = { id: "medinilla", name: "Medinilla", group: "foliage" }
const KEPT = {
  id: 4,
  name: "tag",
  profile_id: "medinilla",
  kind: "Medinilla",
  on: "2026-11-23",
  judged: MISFIT,
  pot_id: null,
}

describe("a candidate", () => {
  it("is judged as it is typed, drawn, saved and compared", async () => {
    const sent = serve({
      ...SETTINGS,
      "GET /api/kinds": { body: [KIND] },
      "GET /api/pots/names": { body: [{ id: 9, code: "M-1", name: "x" }] },
      "GET /api/candidates": { body: [KEPT] },
      "POST /api/candidates/judge": { body: { result: MISFIT, working: WORKING } },
      "POST /api/candidates": { body: { id: 4 } },
      "POST /api/candidates/4/bought": { body: { id: 4 } },
    })
    show(<Screen />)
    fireEvent.change(await screen.findByLabelText("Air, driest, %"), { target: { value: "30" } })
    fireEvent.change(screen.getByLabelText("What its tag says"), { target: { value: "tag" } })
    expect((await screen.findAllByText("A misfit here, air first.")).length).toBe(2)
    expect(screen.getAllByRole("img", { name: /^air: Asks 60 to 80/ }).length).toBe(2)
    const judged = () => sent.filter((s) => s.path === "/api/candidates/judge")
    await waitFor(() => expect(judged().at(-1)?.body).toMatchObject({ humidity_low: "30" }))
    expect(judged().at(-1)?.body).not.toHaveProperty("name")
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() =>
      expect(sent.find((s) => s.path === "/api/candidates" && s.method === "POST")?.body).toEqual({
        name: "tag",
        profile_id: "unknown",
        humidity_low: "30",
        humidity_high: "",
        night: "",
        pets: false,
      }),
    )
    fireEvent.change(await screen.findByLabelText("tag came home as"), { target: { value: "9" } })
    await waitFor(() =>
      expect(sent.find((s) => s.path === "/api/candidates/4/bought")?.body).toEqual({ pot_id: 9 }),
    )
  })
})
