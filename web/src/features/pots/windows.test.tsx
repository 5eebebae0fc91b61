import { fireEvent, screen, within } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import { ROW, serve, SETTINGS, show } from "../../testing/harness.test"
import { Screen } from "./Screen"

const KEPT = 25
const rows = (from: number, many: number) =>
  Array.from({ length: many }, (_, i) => ({
    ...ROW,
    id: from + i + 1,
    code: `W-${from + i + 1}`,
  }))
const page = (from: number, many: number, total = KEPT) => ({
  today: "2026-11-23",
  total,
  kept: KEPT,
  pots: rows(from, many),
})

/** A server that sends ten pots at a time, and one that goes by “grey”. */
function many() {
  return serve({
    ...SETTINGS,
    "GET /api/pots": ({ query }) => {
      if (query.get("find") === "grey") return { body: page(20, 1, 1) }
      const from = Number(query.get("skip"))
      return { body: page(from, Math.min(10, KEPT - from)) }
    },
  })
}
const listed = () => screen.getAllByRole("listitem").length

describe("a long list of pots", () => {
  it("shows the first window, counts all, and goes on to the end", async () => {
    many()
    show(<Screen />)
    expect(await screen.findByRole("heading", { name: "25 pots" })).toBeTruthy()
    expect(listed()).toBe(10)
    fireEvent.click(screen.getByRole("button", { name: "Show more, 15 left" }))
    expect(await screen.findByRole("button", { name: "Show more, 5 left" })).toBeTruthy()
    fireEvent.click(screen.getByRole("button", { name: "Show more, 5 left" }))
    expect(await screen.findByRole("link", { name: /^W-25 / })).toBeTruthy()
    expect(screen.queryByRole("button", { name: /^Show more/ })).toBeNull()
    expect(listed()).toBe(KEPT)
  })

  it("is searched where all of it is, not in what is shown", async () => {
    many()
    show(<Screen />)
    fireEvent.change(await screen.findByRole("searchbox"), { target: { value: "grey" } })
    expect(await screen.findByRole("link", { name: /^W-21 / })).toBeTruthy()
    expect(listed()).toBe(1)
    expect(screen.getByRole("heading", { name: "25 pots" })).toBeTruthy()
  })

  it("keeps what was ticked while another word is searched for", async () => {
    many()
    show(<Screen />, "/pots?view=table")
    fireEvent.click(await screen.findByRole("checkbox", { name: "Choose W-3" }))
    fireEvent.change(screen.getByRole("searchbox"), { target: { value: "grey" } })
    fireEvent.click(await screen.findByRole("checkbox", { name: "Choose W-21" }))
    expect(screen.getByRole("button", { name: "Change 2" })).toBeTruthy()
    const labels = screen.getByRole("link", { name: "Labels" })
    expect(labels.getAttribute("href")).toBe("/pots/labels?ids=3,21")
    expect(within(screen.getByRole("region", { name: "Pots" })).getAllByRole("row")).toHaveLength(2)
  })
})
