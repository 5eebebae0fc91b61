import { fireEvent, screen } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { show, WORKING } from "../../testing/harness.test"
import type { Draft } from "./MixDesk"
import { StrengthFields } from "./StrengthFields"
import { WhatComesOut } from "./WhatComesOut"
import { WhatIn } from "./WhatIn"

const DOSE: Schemas["Dose"] = {
  dose_g_L: 0.4615, dose_mL_L: null, amount_g: 1.477, amount_mL: null, fraction: 0.375, nitrogen_mg_L: 60, ec_added_uS_cm: 378, ec_total_uS_cm: 412, ec_low_uS_cm: 390, ec_high_uS_cm: 434,
  headroom_uS_cm: 88, headroom_nitrogen_mg_L: 14, over_ceiling: false, rounded_amount: 1, rounded_unit: "g", rounding_error_pct: 32.3, weighable: false,
  stock: { mass_g: 23.1, bottle_mL: 500, concentration_g_L: 46.2, draw_mL_per_L: 10, draw_mL: 32, error_pct: 2.1, lasts_L: 50 }, stock_refusal: "",
  elements: [{ name: "Nitrate N", from_feed_mg_L: 53.5, from_water_mg_L: null }, { name: "Urea N", from_feed_mg_L: 0, from_water_mg_L: 0 }],
}
const DRAFT: Draft = { product_id: 1, water_id: 1, pot_ids: [], volume: "3.2", strength: "nitrogen", value: "60" }
const computed = (part: Partial<Schemas["Dose"]> = {}) => ({ result: { ...DOSE, ...part }, working: WORKING })
const value = (label: string) => (screen.getByLabelText(label) as HTMLInputElement).value

describe("one strength with four names", () => {
  it("shows the one that was set as typed and the other three computed", () => {
    show(<StrengthFields draft={{ ...DRAFT, value: "60,0" }} onChange={() => undefined} dose={DOSE} />)
    expect([value("Nitrogen"), value("Of the label"), value("EC added"), value("EC in the can")]).toEqual(["60,0", "0.375", "378", "412"])
    screen.getByText("Keeps 38 % of the label rate.")
  })
  it("makes the field last typed in the one that rules", () => {
    let draft = DRAFT
    show(<StrengthFields draft={DRAFT} onChange={(d) => { draft = d }} dose={DOSE} />)
    fireEvent.change(screen.getByLabelText("EC in the can"), { target: { value: "300" } })
    expect(draft).toMatchObject({ strength: "ec_total", value: "300" })
  })
  it("says when a share of the label means nothing", () => {
    show(<StrengthFields draft={DRAFT} onChange={() => undefined} dose={{ ...DOSE, fraction: null }} />)
    expect(value("Of the label")).toBe("")
    screen.getByText(/label states no rate/)
  })
  it("keeps the server’s sentence at the ruling field", () => {
    show(<StrengthFields draft={DRAFT} onChange={() => undefined} dose={undefined} problem="Target 20 µS/cm is below the water." />)
    expect(screen.getByLabelText("Nitrogen").getAttribute("aria-invalid")).toBe("true")
    expect(screen.getByRole("alert").textContent).toContain("below the water")
  })
})

const WATER: Schemas["MixWater"] = { id: 1, name: "Rain cistern", kind: "rain", ec25_uS_cm: 34, read_on: "2026-11-21" }

describe("what goes in", () => {
  it("sends a small dose through a stock, with its rounding told", () => {
    const { container } = show(<WhatIn volumeUnit="L" draft={DRAFT} water={WATER} dose={computed()} problem={null} />)
    expect(container.textContent).toContain("Your scale: 1 g, 32 % off.")
    expect(container.textContent).toContain("Weigh 23.1 g into 500 mL")
    expect(screen.getAllByRole("listitem")[1]?.textContent).toBe("Shake the stock. Draw 32 mL.")
  })
  it("weighs what can be weighed", () => {
    show(<WhatIn volumeUnit="L" draft={DRAFT} water={WATER} dose={computed({ weighable: true, stock: null, rounded_amount: 1.5 })} problem={null} />)
    expect(screen.getAllByRole("listitem")[1]?.textContent).toContain("Weigh or measure 1.5 g")
  })
  it("says why there is no stock, and what the pen should read", () => {
    const { container } = show(<WhatIn volumeUnit="L" draft={DRAFT} water={WATER} dose={computed({ stock: null, stock_refusal: "No stock fits." })} problem={null} />)
    expect(container.textContent).toContain("No stock fits.")
    expect(container.textContent).toContain("expect 390 to 434")
  })
  it("is plain water when nothing is added", () => {
    show(<WhatIn volumeUnit="L" draft={{ ...DRAFT, product_id: null }} water={WATER} problem={null} />)
    screen.getByText("3.2 L Rain cistern, nothing added")
  })
})

describe("what comes out", () => {
  it("tells the room to the ceiling", () => {
    const { container } = show(<WhatComesOut dose={computed()} water={WATER} />)
    expect(container.textContent).toContain("Room to the ceiling: 88 µS/cm, or 14 mg/L N more.")
    expect(container.textContent).toContain("the water’s own ions are not known")
  })
  it("says over when it is over", () => {
    const { container } = show(<WhatComesOut dose={computed({ over_ceiling: true, headroom_uS_cm: -92 })} water={WATER} />)
    expect(container.textContent).toContain("Over the ceiling by 92 µS/cm.")
  })
  it("adds the water’s own ions where a report gives them", () => {
    const { container } = show(<WhatComesOut dose={computed({ elements: [{ name: "Calcium", from_feed_mg_L: 10, from_water_mg_L: 98 }] })} water={WATER} />)
    expect(container.textContent).toContain("108")
    expect(container.textContent).toContain("water and feed together")
  })
})
