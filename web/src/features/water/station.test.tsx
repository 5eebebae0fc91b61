// The Water station: sources on their surface, verdicts, what a reading of unknown scale could be.
import { fireEvent, screen } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { show } from "../../testing/harness.test"
import { SourceCard } from "./SourceCard"
import { VerdictMatrix } from "./VerdictMatrix"
import { Waterline } from "./Waterline"

const READING: Schemas["ReadingOut"] = {
  id: 1,
  on: "2026-11-21",
  value: 60,
  unit: "ppm",
  scale: "unknown",
  temperature_C: null,
  compensated: true,
  check_overdue: false,
  ec25_uS_cm: null,
  half_width_uS_cm: null,
  refusal: "",
  origin: "typed",
  meter_id: null,
  possible_uS_cm: { "0.5": 120, "0.64": 93.75, "0.7": 85.7 },
}
const water = (id: number, name: string, ec: number | null): Schemas["WaterOut"] => ({
  id,
  name,
  kind: "rain",
  kind_label: "rain",
  price_per_L: 0,
  on_hand_L: null,
  capacity_L: null,
  collected_on: null,
  disinfectant: "none",
  ec25_uS_cm: ec,
  half_width_uS_cm: 2,
  usual: null,
  reckoned_uS_cm: 34,
  low_uS_cm: 33,
  high_uS_cm: 35,
  read_on: "2026-11-21",
  age_days: 2,
  newest: null,
  history: [],
  tests: [],
  unknown: [],
  treatments: [],
  report_id: null,
  report_on: null,
  watch: {
    retest_on: null,
    retest_due: false,
    rising: false,
    rise_uS_cm_month: null,
    keeps_until: null,
    too_old: false,
    short_term: false,
    concern: "fine",
    sentences: [],
  },
  amounts: ec === null ? "needs a reading" : "within for all 1",
  kind_line: "",
})
const WATERS: Schemas["WaterPage"] = {
  today: "2026-11-23",
  waters: [water(1, "Cistern", 34), water(2, "Borehole", 740), water(3, "Jug", null)],
  groups: [
    { profile_id: "disa", short: "Disa", ec_max_uS_cm: 80, confidence: "medium", pots: 1 },
    { profile_id: "paph", short: "Paphiopedilum", ec_max_uS_cm: 300, confidence: "high", pots: 2 },
  ],
  verdicts: [
    {
      water_id: 1,
      profile_id: "disa",
      amount: "within",
      margin_line: "margin 4",
      kind: "known good",
      kind_line: "nothing known against it",
      limiting: "",
      word: "yes",
    },
  ],
}

describe("the water station", () => {
  it("floats each water, one nobody measured in a broken line, and lets one be chosen", () => {
    const chosen: number[] = []
    const { container } = show(
      <Waterline page={WATERS} chosen={1} onChoose={(id) => chosen.push(id)} />,
    )
    expect(screen.getAllByRole("button")).toHaveLength(3)
    expect(screen.getByRole("button", { name: /Jug/ }).textContent).toContain("not measured")
    expect(container.querySelectorAll("path[stroke-dasharray]")).toHaveLength(1)
    fireEvent.keyDown(screen.getByRole("button", { name: /Borehole/ }), { key: "Enter" })
    expect(chosen).toEqual([2])
    expect(container.textContent).toContain("Disa 80")
  })
  it("gives the chosen water its two lines, plant by plant", () => {
    const { container } = show(
      <VerdictMatrix page={WATERS} chosen={1} onChoose={() => undefined} />,
    )
    expect(container.textContent).toContain("within · at most 80 µS/cm, margin 4")
    expect(container.textContent).toContain("known good · nothing known against it")
    expect(container.textContent).toContain("needs a reading")
  })
  it("lists what an unknown ppm could be and computes nothing from it", () => {
    const { container } = show(
      <SourceCard
        water={{ ...water(3, "Jug", null), newest: READING, history: [READING] }}
        today="2026-11-23"
      />,
    )
    for (const words of [
      "scale not known",
      "120 µS/cm on the 0.5 scale",
      "94 µS/cm on the 0.64 scale",
      "86 µS/cm on the 0.7 scale",
      "not computed",
    ])
      expect(container.textContent).toContain(words)
  })
})
