import { fireEvent, screen } from "@testing-library/react"
import { useForm } from "react-hook-form"
import { describe, expect, it, vi } from "vitest"
import { serve, SETTINGS, show } from "../testing/harness.test"
import { AmountFields, type AmountValues, filledAmounts } from "./AmountFields"
import { Choice } from "./Choice"
import { Tick } from "./Tick"

const QUANTITIES = [
  { id: "alkalinity", label: "alkalinity", units: ["mg/L CaCO3", "°dKH"] },
  { id: "hardness", label: "hardness", units: ["mg/L CaCO3", "°dGH"] },
  { id: "pH", label: "pH", units: ["pH"] },
]

function Amounts() {
  const form = useForm<AmountValues>({
    defaultValues: {
      amounts: Object.fromEntries(
        QUANTITIES.map((q) => [q.id, { typed: "", unit: q.units[0] ?? "" }]),
      ),
    },
  })
  return <AmountFields form={form} ids={QUANTITIES.map((q) => q.id)} />
}

describe("a tick without words", () => {
  it("has a name, tells what it became, and its label is what a thumb presses", () => {
    const told = vi.fn()
    show(<Tick label="Choose P-01" checked={false} onChange={told} />)
    const box = screen.getByRole("checkbox", { name: "Choose P-01" })
    fireEvent.click(box.closest("label") as HTMLElement)
    expect(told).toHaveBeenCalledExactlyOnceWith(true)
  })
})

describe("amounts with their units", () => {
  it("have an id of their own each, units too, and a name each", async () => {
    serve({ ...SETTINGS, "GET /api/quantities": { body: QUANTITIES } })
    const { container } = show(<Amounts />)
    await screen.findByLabelText("Alkalinity")
    const ids = [...container.querySelectorAll("[id]")].map((e) => e.id)
    expect(new Set(ids).size).toBe(ids.length)
    expect(screen.getAllByRole("textbox")).toHaveLength(3)
    for (const q of ["alkalinity", "hardness"])
      expect(screen.getByRole("combobox", { name: `Unit of ${q}` })).toBeTruthy()
    expect(screen.queryByRole("combobox", { name: "Unit of pH" })).toBeNull()
  })
  it("send what was filled in and nothing else", () => {
    const none = { typed: "  ", unit: "mg/L" }
    expect(filledAmounts({ hardness: none, pH: { typed: "6,5", unit: "pH" } })).toEqual([
      { quantity: "pH", typed: "6,5", unit: "pH" },
    ])
  })
})

describe("a choice", () => {
  it("says nothing of the mark beside it", () => {
    const { container } = show(
      <Choice
        label="Kind"
        value="a"
        choices={[{ value: "a", label: "A" }]}
        onValue={() => undefined}
      />,
    )
    const marks = [...container.querySelectorAll("svg")]
    expect(marks.length).toBeGreaterThan(0)
    expect(marks.every((m) => m.closest("[aria-hidden]"))).toBe(true)
  })
})
