import { describe, expect, it } from "vitest"
import { asDate, nearest } from "./scales"
import { placeBeside, placeCentred } from "../../water/waterlineLayout"
import { stepsOf } from "../../round/steps"
import { ago, day, figure, pourVolume, shown } from "../../../ui/format"
import { ApiProblem } from "../../../api/problem"

describe("the strata's cursor", () => {
  it("stops at the nearest day something happened", () => {
    const days = ["2026-01-01", "2026-01-10", "2026-01-31"]
    expect(nearest(days, asDate("2026-01-07"))).toBe("2026-01-10")
    expect(nearest([], asDate("2026-01-07"))).toBeUndefined()
  })
})

describe("labels of the waterline", () => {
  const marks = [10, 14, 18, 300].map((x, i) => ({ key: String(i), x, width: 80 }))
  it("never overlap in a row and never leave the drawing", () => {
    for (const place of [placeCentred, placeBeside]) {
      const placed = place(marks, 360)
      for (const a of placed)
        for (const b of placed)
          if (a.key !== b.key && a.row === b.row)
            expect(a.left + a.width <= b.left || b.left + b.width <= a.left).toBe(true)
    }
    expect(placeCentred(marks, 360).every((m) => m.left >= 0 && m.left + m.width <= 360)).toBe(true)
  })
})

describe("figures", () => {
  it("show at most the asked figures, thin spaces, and a true minus", () => {
    expect(figure(1480, 6)).toBe("1\u202f480")
    expect(figure(0.27333)).toBe("0.273")
    expect(figure(-12.4)).toBe("\u221212.4")
  })
  it("follow the unit the server names", () => {
    const display = { ec: { unit: "mS/cm", factor: 0.001, offset: 0, digits: 3 } }
    expect(shown(412.4, "ec", display)).toEqual({ text: "0.412", unit: "mS/cm" })
    expect(shown(412.4, "ec", undefined)).toEqual({ text: "412", unit: "µS/cm" })
    expect(
      shown(20, "temperature", { temperature: { unit: "°F", factor: 1.8, offset: 32, digits: 3 } }),
    ).toEqual({ text: "68", unit: "°F" })
  })
  it("name days and volumes as a grower would", () => {
    expect([ago(0), ago(1), ago(9)]).toEqual(["today", "yesterday", "9 days ago"])
    expect(day("2026-11-02", "2026-11-23")).toBe("2 Nov")
    expect(day("2025-11-02", "2026-11-23")).toContain("2025")
    expect([pourVolume(350), pourVolume(1500)]).toEqual(["350 mL", "1.5 L"])
  })
})

describe("the walk", () => {
  const can = (letter: string, job: string, rows: number[]) => ({
    letter,
    job,
    to_mix: job === "feed",
    pots: rows.map((row, i) => ({
      pot_id: i,
      row,
      together: rows.filter((r) => r === row).length > 2,
    })),
  })
  const said = (steps: ReturnType<typeof stepsOf>) =>
    steps.map(
      (s) =>
        `${s.can.letter}${s.kind === "mix" ? "*" : s.kind === "row" ? `${s.index}+${s.pots.length}` : s.index}`,
    )
  const leg = (letter: string, ...pot_ids: number[]) => ({ letter, pot_ids })
  const of = (...legs: ReturnType<typeof leg>[]) =>
    ({
      cans: [can("A", "plain", [0, 1]), can("B", "feed", [0, 1, 1, 1, 2])],
      legs,
    }) as unknown as Parameters<typeof stepsOf>[0]
  const plan = of(leg("A", 0, 1), leg("B", 0, 1, 2, 3, 4))
  it("mixes a feed can once and takes a row of alike pots in one step", () => {
    expect(said(stepsOf(plan))).toEqual(["A1", "A2", "B*", "B1", "B2+3", "B5"])
  })
  it("goes pot by pot through a row that was opened", () => {
    expect(said(stepsOf(plan, ["B1"]))).toEqual(["A1", "A2", "B*", "B1", "B2", "B3", "B4", "B5"])
  })
  it("comes back to a can it has mixed for what is isolated", () => {
    expect(said(stepsOf(of(leg("A", 0), leg("B", 0, 1, 2, 3), leg("A", 1), leg("B", 4))))).toEqual([
      "A1",
      "B*",
      "B1",
      "B2+3",
      "A2",
      "B5",
    ])
  })
})

describe("a problem document", () => {
  it("gives each field its sentence", () => {
    const problem = new ApiProblem({
      detail: "No.",
      errors: [{ pointer: "/label/n_total_pct", detail: "Too much." }],
    })
    expect(problem.message).toBe("No.")
    expect(problem.fields()).toEqual({ n_total_pct: "Too much." })
  })
})
