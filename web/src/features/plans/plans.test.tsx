import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import { elsewhere, type Sent, serve, SETTINGS, show } from "../../testing/harness.test"
import { EditPlan } from "./EditPlan"

const PREVIEW = {
  today: "2026-11-23",
  of: "P-01",
  plan: {},
  sentence: "P-01 is fed every 7 days.",
  echo: "",
  pots: [],
  ruled: 1,
  waiting: [],
  feeds_now: 6,
  feeds_then: 12,
  beside: [],
}
const KEPT = {
  id: 5,
  scope: "plant",
  key: "1",
  of: "P-01",
  plan: { rhythm: "days", every_days: 14 },
  value_said: "40",
  sentence: "P-01 is fed every 14 days.",
  made_on: "2026-11-01",
  codes: ["P-01"],
}
const table = (plans: unknown[]) => ({
  ...SETTINGS,
  "GET /api/mix": { body: { products: [], waters: [], pots: [], measures: [] } },
  "GET /api/plans": { body: plans },
  "GET /api/plans/starts": { body: [] },
  "GET /api/kinds": { body: [] },
  "GET /api/places": { body: [] },
  "GET /api/pots/names": { body: [] },
  "GET /api/shelf": { body: { measures: [] } },
  "POST /api/plans/preview": { body: PREVIEW },
})
const kept = (sent: Sent[]) =>
  sent.filter((s) => s.method === "POST" && s.path === "/api/plans").map((s) => s.body)

describe("a feeding plan", () => {
  it("says its sentence and what it gives, and is kept with the one it was opened on", async () => {
    const sent = serve({ ...table([KEPT]), "POST /api/plans": { status: 201, body: { id: 6 } } })
    show(<EditPlan />, "/plans/edit?scope=plant&key=1")
    expect(await screen.findByText("P-01 is fed every 7 days.")).toBeTruthy()
    expect(screen.getByText("Rules 1 pot; 12 feeds in twelve weeks, 6 as it is now.")).toBeTruthy()
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() => expect(kept(sent)).toHaveLength(1))
    expect(kept(sent)[0]).toMatchObject({ scope: "plant", key: "1", every_days: 14, seen: 5 })
  })
  it("tells the one that another kept meanwhile, and replaces it when saved again", async () => {
    const told =
      "Changed elsewhere meanwhile. P-01 is fed every 10 days. Save again to store yours."
    const sent = serve({ ...table([]), "POST /api/plans": elsewhere("seen", told, { seen: 9 }) })
    show(<EditPlan />, "/plans/edit?scope=plant&key=1")
    await screen.findByText("P-01 is fed every 7 days.")
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    expect((await screen.findByRole("alert")).textContent).toBe(told)
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() => expect(kept(sent)).toHaveLength(2))
    expect(kept(sent).map((b) => (b as { seen: number }).seen)).toEqual([0, 9])
  })
  it.each([
    [2, "A nearer plan rules P-01, P-02."],
    [9, "A nearer plan rules P-01, P-02, P-03, P-04, P-05, P-06 and 3 more."],
  ])("names pots that a nearer plan rules, and how many more: %i", async (n, said) => {
    const waiting = Array.from({ length: n }, (_, i) => `P-0${i + 1}`)
    serve({ ...table([]), "POST /api/plans/preview": { body: { ...PREVIEW, waiting } } })
    show(<EditPlan />, "/plans/edit?scope=all&key=")
    expect(await screen.findByText(said)).toBeTruthy()
  })
})
