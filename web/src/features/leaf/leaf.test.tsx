import { fireEvent, screen, within } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { serve, SETTINGS, show } from "../../testing/harness.test"
import { spanOf } from "./axis"
import type { PlantLine } from "./queries"
import { saysOfLeaf } from "./says"
import { Screen } from "./Screen"

const leaf = (opened_on: string, mm: number | null, more: object = {}) => ({
  opened_on,
  mm,
  growing: false,
  share: mm === null ? null : mm / 160,
  formed: null,
  weight: 0,
  ...more,
})

function plant(code: string, group: PlantLine["line"]["group"], more: object = {}): PlantLine {
  return {
    pot_id: Number(code.slice(-2)),
    code,
    name: "Paphiopedilum",
    profile_id: "paphiopedilum",
    profile: "Paphiopedilum",
    place: "Signal room",
    school: "Thin and constant",
    last_look_on: "2026-11-09",
    marks: [],
    leaves_count: 11,
    newest_leaf_mm: 159,
    fed: ["2026-10-01"],
    flushed: ["2026-09-08"],
    line: {
      leaves: [
        leaf("2026-05-02", 165, { formed: "formed before" }),
        leaf("2026-11-02", 120, { formed: "formed after", growing: true }),
      ],
      usual_mm: 160,
      next_leaf: {
        days: 83,
        next_on: "2027-01-24",
        earliest_on: "2027-01-10",
        latest_on: "2027-02-12",
        late: false,
        sentence: "A leaf in 83 days.",
      },
      group,
      change: "flush",
      change_on: "2026-09-08",
      opens_on: "2026-09-18",
      closes_on: "2026-10-06",
      after_percent: null,
      word: "flush: no finished leaf formed after it yet",
    },
    ...more,
  }
}

const page = (plants: PlantLine[]): Schemas["LeafPage"] => ({
  today: "2026-11-23",
  since: "2025-09-24",
  total: plants.length,
  first: plants[0] ? { pot_id: plants[0].pot_id, code: plants[0].code } : null,
  groups: [...new Set(plants.map((p) => p.line.group))].map((key) => {
    const mine = plants.filter((p) => p.line.group === key)
    return { key, folds: key === "as usual", total: mine.length, plants: mine }
  }),
})

describe("the Leaf station", () => {
  it("shows groups in the order they are sent, and folds who is as usual", async () => {
    const plants = [plant("P-03", "look today"), plant("P-02", "look today")]
    const sent = page([...plants, plant("P-01", "as usual")])
    serve({ ...SETTINGS, "GET /api/leaves": { body: sent } })
    show(<Screen />)
    expect(await screen.findByRole("link", { name: "Look at P-03" })).toBeTruthy()
    const rows = within(screen.getByRole("region", { name: "Look today" })).getAllByRole("listitem")
    expect(rows.map((r) => within(r).getByRole("link").textContent)).toEqual([
      "P-03 Paphiopedilum",
      "P-02 Paphiopedilum",
    ])
    const usual = screen.getByRole("region", { name: "As usual" })
    expect(within(usual).queryAllByRole("listitem")).toHaveLength(0)
    fireEvent.click(within(usual).getByRole("button", { name: /As usual/ }))
    expect(within(usual).getAllByRole("listitem")).toHaveLength(1)
  })

  it("asks for the rest of a group when it is wanted, and shows a plant that moved once", async () => {
    const sent = page([plant("P-02", "look today")])
    const group = { ...sent.groups[0], total: 3 } as Schemas["LeafGroup"]
    const more = [plant("P-02", "look today"), plant("P-05", "look today")]
    const asked = serve({
      ...SETTINGS,
      "GET /api/leaves": { body: { ...sent, total: 3, groups: [group] } },
      "GET /api/leaves/more": { body: { total: 3, plants: more } },
    })
    show(<Screen />)
    fireEvent.click(await screen.findByRole("button", { name: "Show more, 2 left" }))
    expect(await screen.findByRole("link", { name: "P-05 Paphiopedilum" })).toBeTruthy()
    expect(screen.getAllByRole("link", { name: "P-02 Paphiopedilum" })).toHaveLength(1)
    expect(asked.some((a) => a.path.includes("more"))).toBe(true)
  })

  it("reads its leaves by arrow keys, a growing one as growing", async () => {
    serve({ ...SETTINGS, "GET /api/leaves": { body: page([plant("P-02", "being judged")]) } })
    show(<Screen />)
    const line = await screen.findByRole("slider")
    fireEvent.keyDown(line, { key: "End" })
    const newest = "P-02, leaf 2, opened 2 Nov · 120 mm, still growing · formed after the flush"
    expect(screen.getByText(newest)).toBeTruthy()
    expect(line.getAttribute("aria-valuetext")).toBe(newest)
    fireEvent.keyDown(line, { key: "ArrowLeft" })
    expect(
      screen.getByText(
        "P-02, leaf 1, opened 2 May · 165 mm · 103 % of its usual · formed before the flush",
      ),
    ).toBeTruthy()
  })

  it("is a table too, a row a leaf", async () => {
    serve({ ...SETTINGS, "GET /api/leaves": { body: page([plant("P-02", "being judged")]) } })
    show(<Screen />)
    const table = (await screen.findByText("Table, a row a leaf")).closest("details")
    if (!table) throw new Error("no table")
    table.open = true
    fireEvent(table, new Event("toggle"))
    expect(await screen.findByText("120, growing")).toBeTruthy()
    expect(screen.getByRole("link", { name: "Export as CSV" }).getAttribute("href")).toBe(
      "/api/leaves.csv",
    )
  })

  it("opens on a line that says what to do where nothing grows yet", async () => {
    serve({ ...SETTINGS, "GET /api/leaves": { body: page([]) } })
    show(<Screen />)
    expect(await screen.findByText(/once a leaf is measured twice/)).toBeTruthy()
  })
})

describe("lines", () => {
  it("begin no earlier than the records and end after today", () => {
    const [from, to] = spanOf("2026-11-23", "2026-09-01", 9)
    expect(from.toISOString().slice(0, 10)).toBe("2026-09-01")
    expect(to > new Date("2027-01-01")).toBe(true)
  })

  it("tell not measured from zero", () => {
    const unmeasured = plant("P-01", "as usual")
    unmeasured.line = { ...unmeasured.line, change_on: null, leaves: [leaf("2026-05-02", null)] }
    expect(saysOfLeaf(unmeasured, 0, "2026-11-23")).toBe(
      "P-01, leaf 1, opened 2 May · not measured",
    )
    expect(saysOfLeaf(unmeasured, 4, "2026-11-23")).toBe("")
  })
})
