import { fireEvent, screen, waitFor, within } from "@testing-library/react"
import { expect, it, vi } from "vitest"
import type { Schemas } from "../../api/client"
import { serve, SETTINGS, show, type Sent } from "../../testing/harness.test"
import { ReportScreen } from "./ReportScreen"

const TOTAL = 130
const AT_ONCE = 60

const year = (n: number): Schemas["PlantYear"] => ({
  pot_id: n,
  code: `R-${n}`,
  name: "Pleione",
  kind: "Pleione",
  place: "Bench",
  sum: {
    waterings: 3,
    feeds: 2,
    nitrogen_mg: 41.26,
    unknown: 1,
    leaves: 0,
    height_cm: null,
    stairs: [],
    degree_days: null,
  } as unknown as Schemas["SeasonSum"],
  flushes: 1,
  last_flush_on: "2026-09-08",
  flowers: null,
  waters: [],
  told: [],
})
const page = ({ query }: Sent) => {
  const skip = Number(query.get("skip") ?? 0)
  const here = Math.min(AT_ONCE, TOTAL - skip)
  return {
    body: {
      since: query.get("since") ?? "2025-11-23",
      until: "2026-11-23",
      total: TOTAL,
      plants: Array.from({ length: here }, (_, i) => year(skip + i + 1)),
      losses: [{ on: "2026-02-01", code: "R-0", name: "Disa", cause: "" }],
    },
  }
}

const plants = () => within(screen.getByRole("region", { name: "Plants" })).getAllByRole("row")

it("begins with some of the plants, and goes on when asked", async () => {
  serve({ ...SETTINGS, "GET /api/season-report": page })
  show(<ReportScreen />)
  await screen.findByText("R-1")
  expect(plants()).toHaveLength(1 + AT_ONCE)
  screen.getByText(/130 plants, 1 lost/)
  const row = plants()[1]
  expect(row?.textContent).toBe(
    "R-1 Pleione2 times, 41.3 mg N, 1 not knownonce, 8 Sept0not countedNothing was changed.",
  )
  screen.getByText(/R-0 Disa, cause not known/)
  fireEvent.click(screen.getByRole("button", { name: "Show more, 70 left" }))
  await waitFor(() => expect(plants()).toHaveLength(1 + 2 * AT_ONCE))
})

it("prints all of them", async () => {
  const printed: number[] = []
  vi.stubGlobal("print", () => printed.push(plants().length - 1))
  const sent = serve({ ...SETTINGS, "GET /api/season-report": page })
  show(<ReportScreen />)
  await screen.findByText("R-1")
  fireEvent.click(screen.getByRole("button", { name: "Print" }))
  await waitFor(() => expect(printed).toEqual([TOTAL]))
  const asked = sent.filter((s) => s.path === "/api/season-report").map((s) => s.query.get("skip"))
  expect(asked.map(Number)).toEqual([0, 60, 120])
  expect(screen.queryByRole("button", { name: /Show more/ })).toBeNull()
})

it("says why a day is refused and keeps what is there", async () => {
  serve({
    ...SETTINGS,
    "GET /api/season-report": (asked) =>
      asked.query.get("since") === "2026-12-24"
        ? { status: 422, body: { detail: "First day 2026-12-24 is in the future.", errors: [] } }
        : page(asked),
  })
  show(<ReportScreen />)
  await screen.findByText("R-1")
  fireEvent.change(screen.getByLabelText("Since"), { target: { value: "2026-12-24" } })
  await screen.findByText("First day 2026-12-24 is in the future.")
  expect(plants().length).toBeGreaterThan(1)
})
