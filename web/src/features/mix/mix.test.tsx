import { fireEvent, screen } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { show, WORKING } from "../../testing/harness.test"
import { BenchPage } from "./BenchPage"
import { StrengthFields } from "./desk/StrengthFields"
import { WhatComesOut } from "./desk/WhatComesOut"
import { WhatIn } from "./desk/WhatIn"
import { type Answer, body, type Draft, fromRecipe } from "./draft"

const STOCK: Schemas["StockSolution"] = {
  mass_g: 23.1,
  bottle_mL: 500,
  concentration_g_L: 46.2,
  draw_mL_per_L: 10,
  draw_mL: 32,
  error_pct: 2.1,
  lasts_L: 50,
  bottles: [],
  dilution: "1 in 100",
  keeps_weeks: 8,
  use_by: null,
  filled_with: "Rain",
  weigh_g: 23,
}
const PART: Schemas["Weighing"] = {
  name: "Nitrate feed",
  dose_g_L: 0.4615,
  dose_mL_L: null,
  amount: 1.477,
  unit: "g",
  step: 1,
  rounded: 1,
  error_pct: 32.3,
  weighable: false,
}
const DOSE: Schemas["Dose"] = {
  dose_g_L: 0.4615,
  dose_mL_L: null,
  amount_g: 1.477,
  amount_mL: null,
  fraction: 0.375,
  nitrogen_mg_L: 60,
  ec_added_uS_cm: 378,
  ec_total_uS_cm: 412,
  ec_low_uS_cm: 390,
  ec_high_uS_cm: 434,
  headroom_uS_cm: 88,
  headroom_nitrogen_mg_L: 14,
  over_ceiling: false,
  rounded_amount: 1,
  rounded_unit: "g",
  rounding_error_pct: 32.3,
  weighable: false,
  stock: STOCK,
  stock_refusal: "",
  by_steps: null,
  stock_working: WORKING,
  elements: [
    { name: "Nitrate N", from_feed_mg_L: 53.5, from_water_mg_L: null, in_can_mg_L: 53.5 },
    { name: "Urea N", from_feed_mg_L: 0, from_water_mg_L: 0, in_can_mg_L: 0 },
  ],
  elements_working: WORKING,
  parts: [PART],
  predicted_by: "ion model",
  model_added_uS_cm: 378,
}
const BENCH: Schemas["BenchStep"][] = [
  {
    act: "half fill",
    what: "Rain",
    amount: 1.6,
    unit: "L",
    caution: "At room temperature.",
    low: null,
    high: null,
  },
  {
    act: "draw",
    what: "stock of Nitrate feed",
    amount: 32,
    unit: "mL",
    caution: "Shake it first.",
    low: null,
    high: null,
  },
  { act: "fill", what: "the can", amount: 3.2, unit: "L", caution: "Stir.", low: null, high: null },
  { act: "read", what: "the pen", amount: 412, unit: "µS/cm", caution: "", low: 390, high: 434 },
]
const computed = <T,>(result: T) => ({ result, working: WORKING })
function made(part: Partial<Schemas["Dose"]> = {}, rest: Partial<Answer> = {}): Answer {
  return {
    dose: computed({ ...DOSE, ...part }),
    echo: "",
    headroom: null,
    headroom_refusal: "",
    calcium: null,
    supplement_id: null,
    cost_unit: "g",
    slope: null,
    bench: BENCH,
    measures: [],
    clear: computed({
      verdict: "clear",
      sentence: "Stays clear.",
      minerals: [{ where: "can", mineral: "gypsum", index: -1.3, verdict: "clear" }],
      solubility: [],
      bottles: [[0]],
      order: [0],
      strongest_times: null,
      pH_can: 6.2,
    }),
    tendency: computed({
      drift: "about steady",
      net_mg_L: 12,
      low_mg_L: 4,
      high_mg_L: 20,
      feed_acidity_mg_L: -3,
      ammonium_share: 0.1,
      products: [],
      confidence: "fair",
      sentence: "Holds the medium about where it is.",
    }),
    cost: computed({
      cost_per_L: 0.008,
      cost_per_month: 0.3,
      used_per_month: 14,
      days_left: 300,
      runs_out_on: "2027-09-19",
      feed_left_L: 900,
      sentence: "It runs out about 19 Sep 2027 at the present plan.",
    }),
    ...rest,
  } as Answer
}
const DRAFT: Draft = {
  product_id: 1,
  water_id: 1,
  blend: [],
  pot_ids: [],
  volume: "3.2",
  strength: "nitrogen",
  element: "K",
  value: "60",
  also: [],
  route: "root",
  school_id: null,
  recipe: "",
  made_on: "2026-11-23",
}
const WATER: Schemas["MixWater"] = {
  id: 1,
  name: "Rain cistern",
  kind: "rain",
  ec25_uS_cm: 34,
  usual: null,
  read_on: "2026-11-21",
}
const value = (label: string) => (screen.getByLabelText(label) as HTMLInputElement).value
const nothing = () => undefined

describe("one strength with four names", () => {
  it("shows the one that was set as typed and the other three computed", () => {
    show(<StrengthFields draft={{ ...DRAFT, value: "60,0" }} onChange={nothing} dose={DOSE} />)
    expect([
      value("Nitrogen"),
      value("Of the label"),
      value("EC added"),
      value("EC in the can"),
    ]).toEqual(["60,0", "0.375", "378", "412"])
    screen.getByText("Keeps 38 % of the label rate.")
  })
  it("makes the field last typed in the one that rules, the slider too", () => {
    let draft = DRAFT
    show(
      <StrengthFields
        draft={DRAFT}
        onChange={(d) => {
          draft = d
        }}
        dose={DOSE}
      />,
    )
    fireEvent.change(screen.getByLabelText("EC in the can"), { target: { value: "300" } })
    expect(draft).toMatchObject({ strength: "ec_total", value: "300" })
    fireEvent.change(screen.getByLabelText("Drag the nitrogen"), { target: { value: "44" } })
    expect(draft).toMatchObject({ strength: "nitrogen", value: "44" })
  })
  it("says what the server heard", () => {
    show(
      <StrengthFields
        draft={{ ...DRAFT, strength: "fraction", value: "reduce by 3/4" }}
        onChange={nothing}
        dose={DOSE}
        echo="“Reduce by three quarters” keeps one quarter."
      />,
    )
    screen.getByText("“Reduce by three quarters” keeps one quarter.")
  })
  it("says when a share of the label means nothing, and keeps the server’s sentence at its field", () => {
    show(
      <StrengthFields
        draft={DRAFT}
        onChange={nothing}
        dose={{ ...DOSE, fraction: null }}
        problem="Target 20 µS/cm is below the water."
      />,
    )
    expect(value("Of the label")).toBe("")
    screen.getByText(/label states no rate/)
    expect(screen.getByLabelText("Nitrogen").getAttribute("aria-invalid")).toBe("true")
    expect(screen.getByRole("alert").textContent).toContain("below the water")
  })
})

describe("what goes in", () => {
  it("sends a small dose through a stock, with its rounding told", () => {
    const { container } = show(
      <WhatIn
        draft={DRAFT}
        waters={[WATER]}
        answer={made({}, { measures: ["or 2 level spoons (1.5 g, ±9 %)"] })}
        problem={null}
      />,
    )
    expect(container.textContent).toContain(
      "Your scale: 1 g, 32 % off; or 2 level spoons (1.5 g, ±9 %).",
    )
    expect(container.textContent).toContain("Weigh 23 g into 500 mL of Rain")
    expect(screen.getAllByRole("listitem")[1]?.textContent).toContain(
      "Draw 32 mL stock of Nitrate feed.",
    )
    expect(container.textContent).toContain("Read: expect 390 to 434 µS/cm.")
  })
  it("draws the can with what is in it, in words as well", () => {
    show(<WhatIn draft={DRAFT} waters={[WATER]} answer={made()} problem={null} />)
    expect(screen.getByRole("img").getAttribute("aria-label")).toContain(
      "stock of Nitrate feed 32 mL",
    )
  })
  it("says why there is no stock, and that it would clot", () => {
    const clear = computed({
      ...made().clear.result,
      verdict: "clouds" as const,
      sentence: "The can clouds with lime.",
    })
    const { container } = show(
      <WhatIn
        draft={DRAFT}
        waters={[WATER]}
        answer={made({ stock: null, stock_refusal: "No stock fits." }, { clear })}
        problem={null}
      />,
    )
    expect(container.textContent).toContain("No stock fits.")
    expect(container.textContent).toContain("The can clouds with lime.")
  })
  it("is plain water when nothing is added", () => {
    show(<WhatIn draft={{ ...DRAFT, product_id: null }} waters={[WATER]} problem={null} />)
    screen.getByText("3.2 L Rain cistern, nothing added")
  })
})

describe("what comes out", () => {
  it("tells the room to the ceiling, the drift and the cost", () => {
    const { container } = show(
      <WhatComesOut answer={made()} water={WATER} onAdd={nothing} onMost={nothing} />,
    )
    expect(container.textContent).toContain("Room to the ceiling: 88 µS/cm, or 14 mg/L N more.")
    expect(container.textContent).toContain("the water’s own ions are not known")
    expect(container.textContent).toContain("Holds the medium about where it is.")
    expect(container.textContent).toContain("It runs out about 19 Sep 2027")
  })
  it("offers to keep to the ceiling when it is over", () => {
    let asked = ""
    const headroom = computed({
      dose_g_L: 0.3,
      nitrogen_mg_L: 39.5,
      ec_uS_cm: 500,
      strictest: "M-04",
      ceiling_uS_cm: 500,
      fraction: 0.3,
      next_strictest: "P-01",
      next_ceiling_uS_cm: 820,
      sentence: "",
    })
    const { container } = show(
      <WhatComesOut
        answer={made({ over_ceiling: true, headroom_uS_cm: -92 }, { headroom })}
        water={WATER}
        onAdd={nothing}
        onMost={(n) => {
          asked = n
        }}
      />,
    )
    expect(container.textContent).toContain("Over the ceiling by 92 µS/cm.")
    expect(container.textContent).toContain("without M-04 up to 820 µS/cm.")
    fireEvent.click(screen.getByRole("button", { name: "Keep to the ceiling" }))
    expect(asked).toBe("39.5")
  })
  it("adds the water’s own ions, and the supplement that calcium asks for", () => {
    let added: unknown = null
    const calcium = computed({
      calcium_mg_L: 4,
      wanted_mg_L: 18,
      thin: true,
      dose_g_L: 0.304,
      dose_mL_L: 0.245,
      lifts_to_mg_L: 18,
      nitrogen_mg_L: 15,
      sentence: "Calcium is thin for 60 mg/L N: 4 mg/L.",
    })
    const { container } = show(
      <WhatComesOut
        answer={made(
          {
            elements: [
              { name: "Calcium", from_feed_mg_L: 10, from_water_mg_L: 98, in_can_mg_L: 108 },
            ],
          },
          { calcium, supplement_id: 7 },
        )}
        water={WATER}
        onAdd={(id, dose) => {
          added = [id, dose]
        }}
        onMost={nothing}
      />,
    )
    expect(container.textContent).toContain("108")
    expect(container.textContent).toContain("water (outlined) and feed together")
    fireEvent.click(screen.getByRole("button", { name: "Add it to the can" }))
    expect(added).toEqual([7, "0.304"])
  })
})

describe("the bench", () => {
  it("ticks each step and counts them", () => {
    show(
      <BenchPage answer={made()} title="A can" onBack={nothing}>
        <button>Made it</button>
      </BenchPage>,
    )
    fireEvent.click(screen.getAllByRole("checkbox")[1] as HTMLElement)
    screen.getByText(/1 of 4 done/)
    expect(screen.getByRole("list", { name: "Weighing list" }).textContent).toContain("32 mL")
  })
})

describe("a draft", () => {
  it("leaves out products without a dose and a blend of one", () => {
    expect(
      body(
        { ...DRAFT, also: [{ product_id: 2, dose: "" }], blend: [{ water_id: 1, share: "1" }] },
        "L",
      ),
    ).toMatchObject({ also: [], blend: [] })
  })
  it("takes a recipe’s newest version and keeps pots, water and volume", () => {
    const recipe = {
      id: 1,
      name: "Mist",
      version: 2,
      made_on: "2026-10-01",
      product_id: 9,
      strength: "nitrogen",
      element: "N",
      value: 15,
      also: [{ product_id: 3, dose_g_L: 0.1 }],
      route: "leaf",
      school_id: "leaf_before_dark",
      named: true,
    }
    expect(fromRecipe({ ...DRAFT, pot_ids: [4] }, recipe)).toMatchObject({
      product_id: 9,
      value: "15",
      route: "leaf",
      volume: "3.2",
      pot_ids: [4],
      also: [{ product_id: 3, dose: "0.1" }],
      recipe: "Mist",
    })
  })
})
