import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { ROW, serve, SETTINGS, show, WORKING } from "../../testing/harness.test"
import { CanCard } from "../round/CanCard"
import { PourPanel } from "./PourPanel"
import { PhaseLane } from "./strata/lanes"
import { says } from "./strata/says"
import { timeScale } from "./strata/scales"
import { Strata } from "./strata/Strata"

const point = (on: string, reading: number): Schemas["Point"] => ({
  on,
  reading,
  low: reading * 0.7,
  high: reading * 1.4,
})
const pour = (
  id: number,
  on: string,
  part: Partial<Schemas["PourOut"]> = {},
): Schemas["PourOut"] => ({
  id,
  on,
  job: "feed",
  route: "top",
  volume_L: 0.14,
  ec_estimated: false,
  ec_uS_cm: 300,
  runoff_L: null,
  runoff_ec_uS_cm: null,
  runoff_method: null,
  note: "",
  felt: "",
  by: "",
  gave: "",
  plant_id: null,
  corrected: false,
  flush_L: null,
  broken_off: false,
  ...part,
})
const look = (
  id: number,
  on: string,
  part: Partial<Schemas["LookOut"]> = {},
): Schemas["LookOut"] => ({
  id,
  on,
  leaves_count: 5,
  newest_leaf_mm: null,
  new_leaf: false,
  marks: [],
  unknown: [],
  note: "",
  ...part,
})

const PAGE: Schemas["PotPage"] = {
  today: "2026-11-23",
  row: ROW,
  medium: "bark",
  pot_volume_L: 1.4,
  interval_days: 4,
  plain_every: 4,
  hazard: "",
  profile_id: "phragmipedium",
  own_figures: false,
  profile_name: "Phragmipedium",
  confidence: "medium",
  bought_on: "",
  arrived_on: null,
  working: WORKING,
  pours_total: 2,
  pours: [
    pour(1, "2026-11-01"),
    pour(2, "2026-11-09", { job: "flush", flush_L: 1.4, volume_L: 1.4, ec_uS_cm: 34 }),
    pour(3, "2026-11-19", { volume_L: null, ec_uS_cm: null }),
  ],
  looks: [
    look(1, "2026-11-05", { newest_leaf_mm: 142, new_leaf: true }),
    look(2, "2026-11-15", { marks: ["tip", "crust"] }),
  ],
  phases: [
    { phase: "active", since: "2026-10-01" },
    { phase: "rest", since: "2026-11-12" },
  ],
  events: [{ on: "2026-11-05", what: "heating on", at_place: true }],
  pour_water_id: 1,
  pour_water: "Rain",
  water_note: "",
  by_medium: null,
  read_sentence: "",
  prills_sentence: "",
  prills: null,
  root_zone: {
    root_zone_uS_cm: 1000,
    root_zone_low_uS_cm: 600,
    root_zone_high_uS_cm: 1500,
    at_capacity_uS_cm: 900,
    reading_uS_cm: 409,
    reading_low_uS_cm: 243,
    reading_high_uS_cm: 640,
    deficit_L: 0.1,
    pours_used: 3,
    rhythm: null,
    crossing: { status: "no rhythm", on: null, earliest: null, latest: null, sentence: "" },
    history: [point("2026-11-01", 500), point("2026-11-09", 300), point("2026-11-19", 409)],
    ahead: [point("2026-11-27", 420)],
    ballast_uS_cm: 120,
    observations: [
      {
        on: "2026-11-09",
        runoff_ec: 450,
        equivalent_reading: 310,
        expected_runoff_ec: 440,
        method: "runoff",
        expected_low: 400,
        expected_high: 700,
        off_sd: 0.2,
        taught: true,
      },
    ],
  },
}

describe("the strata in words", () => {
  it("tell phase, pour, reading, runoff and leaf of a day", () => {
    expect(says(PAGE, "2026-11-09")).toBe(
      "active · flush: 1.4 L at 34 µS/cm · reading about 300 µS/cm (210 to 420 µS/cm) · runoff measured 450",
    )
    expect(says(PAGE, "2026-11-05")).toContain("newest leaf 142 mm · heating on")
    const said = "rest · reading about 300 µS/cm (210 to 420 µS/cm) · 5 leaves · marks: tip, crust"
    expect(says(PAGE, "2026-11-15")).toBe(said)
  })
  it("do not invent what was not measured", () => {
    expect(says(PAGE, "2026-11-19")).toContain("volume not measured at EC not known")
    expect(says(PAGE, "2026-09-01")).toBe("")
  })
})

describe("the strata", () => {
  it("draw no lane of negative width on the second day of a pot, on a narrow phone", () => {
    const young = { ...PAGE, phases: [{ phase: "active" as const, since: "2026-11-22" }] }
    const w = { from: new Date("2026-05-24"), to: new Date("2027-01-16") } // a day is 1.4 px wide
    const { container } = show(
      <svg>
        <PhaseLane
          page={young}
          x={timeScale(w, 360, 8)}
          w={w}
          gutter={8}
          width={360}
          top={0}
          height={40}
        />
      </svg>,
    )
    const widths = [...container.querySelectorAll("rect")].map((r) =>
      Number(r.getAttribute("width")),
    )
    expect(widths).toHaveLength(1)
    expect(widths[0]).toBeGreaterThanOrEqual(0)
  })
  it("draw prills as a wedge with what is left, and none once they are spent", () => {
    const prills = {
      share_out: 0.4,
      given_on: "2026-09-02",
      until: "2027-03-14",
      until_early: "2027-02-20",
      until_late: "2027-04-08",
      salt: null,
    }
    show(<Strata page={{ ...PAGE, prills }} />)
    expect(screen.getByText("prills, 60 % left, spent about 14 Mar 2027")).toBeTruthy()
  })

  it("draw no wedge of prills long spent", () => {
    const spent = { share_out: 0.99, given_on: "2024-01-01", until: "2024-07-01" }
    const range = { until_early: "2024-06-01", until_late: "2024-08-01", salt: null }
    show(<Strata page={{ ...PAGE, prills: { ...spent, ...range } }} />)
    expect(screen.queryByText(/prills/)).toBeNull()
  })

  it("show the level of a reservoir under its brim, in words too", () => {
    const at = { level_L: 0.4, ec_uS_cm: 310, low_uS_cm: 280, high_uS_cm: 420, measured: true }
    const now = {
      level_L: 0.4,
      ec_uS_cm: 310,
      low_uS_cm: 280,
      high_uS_cm: 420,
      measured_on: null,
      keep_L: 0.5,
      refill_L: 0.1,
      loss_L_day: null,
      change_on: null,
      change_earliest: null,
      medium_uS_cm: null,
      medium_plateau_uS_cm: null,
      points: [{ ...at, on: "2026-11-02" }],
      sentence: "",
    }
    const water = {
      kind: "reservoir" as const,
      room_L: 1.2,
      now: { result: now, working: WORKING },
      tray: null,
    }
    expect(says(PAGE, "2026-11-09", water)).toContain("reservoir 0.4 L at 310 µS/cm (280 to 420)")
    expect(says(PAGE, "2026-11-09", { ...water, kind: "tray" })).toContain("tray 0.4 L")
    expect(says(PAGE, "2026-11-01", water)).not.toContain("reservoir")
  })

  it("have one cursor that the arrow keys move from day to day", () => {
    show(<Strata page={PAGE} />)
    const cursor = screen.getByRole("slider")
    const at = () => cursor.getAttribute("aria-valuetext")?.split(":")[0]
    expect(at()).toBe("23 Nov")
    const seen = ["ArrowLeft", "ArrowLeft", "ArrowRight", "Home", "End"].map((key) => {
      fireEvent.keyDown(cursor, { key })
      return at()
    })
    expect(seen).toEqual(["19 Nov", "15 Nov", "19 Nov", "1 Nov", "23 Nov"])
    expect(cursor.getAttribute("aria-valuemax")).toBe("5")
  })
  it("draw a leaf at its length, a mark with its name and a flush with its litres", () => {
    const { container } = show(<Strata page={PAGE} />)
    for (const words of [
      "142",
      "tip, crust",
      "flushed 1.4 L",
      "ceiling 600",
      "comfortable",
      "heating on",
    ])
      expect(container.textContent).toContain(words)
  })
  it("can look further back", () => {
    show(<Strata page={PAGE} />)
    fireEvent.click(screen.getByRole("button", { name: "14 months" }))
    expect(screen.getByRole("button", { name: "14 months" }).getAttribute("aria-pressed")).toBe(
      "true",
    )
  })
})

const POTS = ["A", "B", "C"].map((code, i) => ({ id: i + 1, code, name: "Paph", volume_L: 0.2 }))

describe("pouring one pot after another", () => {
  it("repeats for the next pot with one tap and forgets the last runoff", async () => {
    const sent = serve({
      ...SETTINGS,
      "POST /api/pours": (one) => ({
        status: 201,
        body: { pour_ids: [(one.body as { pot_ids: number[] }).pot_ids[0]], ec_uS_cm: 300 },
      }),
    })
    show(
      <PourPanel
        pots={POTS}
        chosen={[1, 2]}
        today="2026-11-23"
        source={{ kind: "batch", id: 9, name: "can" }}
      />,
    )
    screen.getByText("A Paph · 1 of 2")
    fireEvent.change(screen.getByLabelText("Runoff EC, µS/cm"), { target: { value: "520" } })
    fireEvent.click(screen.getByRole("button", { name: "Poured, next pot" }))
    await screen.findByText("B Paph · 2 of 2")
    expect((screen.getByLabelText("Runoff EC, µS/cm") as HTMLInputElement).value).toBe("")
    fireEvent.click(screen.getByRole("button", { name: "Poured, next pot" }))
    await screen.findByText("All 2 poured.")
    const pours = sent
      .filter((s) => s.path === "/api/pours")
      .map((s) => s.body as Record<string, unknown>)
    expect(pours.map((p) => [p.pot_ids, p.batch_id, p.volume, p.runoff_ec])).toEqual([
      [[1], 9, "200", "520"],
      [[2], 9, "200", ""],
    ])
    expect(new Set(sent.filter((s) => s.method === "POST").map((s) => s.key)).size).toBe(2)
  })
  it("gives a pot another pour when its code is pressed again", async () => {
    serve({
      ...SETTINGS,
      "POST /api/pours": { status: 201, body: { pour_ids: [1], ec_uS_cm: 34 } },
    })
    show(
      <PourPanel
        pots={POTS}
        chosen={[3]}
        today="2026-11-23"
        source={{ kind: "water", id: 1, name: "Rain" }}
      />,
    )
    fireEvent.click(screen.getByRole("button", { name: "Poured" }))
    await screen.findByText("All 1 poured.")
    fireEvent.click(screen.getByRole("button", { name: "C poured" }))
    screen.getByText("C Paph")
  })
  it("asks for pots first", () => {
    show(
      <PourPanel
        pots={POTS}
        chosen={[]}
        today="2026-11-23"
        source={{ kind: "water", id: 1, name: "Rain" }}
      />,
    )
    screen.getByText("Choose the pots that get it.")
  })
})

describe("a can of the round", () => {
  const can: Schemas["Can"] = {
    product: "Feed",
    product_id: 1,
    letter: "C",
    job: "feed",
    title: "0.9 L feed",
    water_id: 1,
    water_name: "Rain cistern",
    volume_L: 0.9,
    ec_uS_cm: 394,
    ec_low_uS_cm: 373,
    ec_high_uS_cm: 414,
    nitrogen_mg_L: 38,
    water_measured: true,
    to_mix: true,
    made_for: "root",
    strength: "nitrogen",
    strength_value: 38,
    weighing: "18 mL of stock",
    why: "The strictest, M-04, takes a feed up to 500 µS/cm.",
    dose: null,
    working: WORKING,
    pots: [
      {
        pot_id: 1,
        code: "M-04",
        name: "Masdevallia",
        place: "",
        amount_mL: 60,
        route: "top",
        isolated: true,
        row: 0,
        given: "leaf spray",
        step_mL: 10,
        then: "",
        together: false,
        why: "",
      },
    ],
  }
  it("says what to mix, what to expect and who gets it", async () => {
    const { container } = show(<CanCard can={can} />)
    await waitFor(() => expect(container.textContent).toContain("394 µS/cm"))
    for (const words of [
      "Rain cistern 0.9 L + Feed 18 mL of stock",
      "expect 373 to 414",
      "M-04 Masdevallia · isolated",
      "60 mL",
      "up to 500",
    ])
      expect(container.textContent).toContain(words)
  })

  it("of a nursery shows its first pots and goes on", () => {
    const [one] = can.pots
    const pots = Array.from({ length: 90 }, (_, i) => ({ ...one, pot_id: i, code: `N-${i}` }))
    show(<CanCard can={{ ...can, pots: pots as typeof can.pots }} />)
    expect(document.querySelectorAll("li")).toHaveLength(40)
    fireEvent.click(screen.getByRole("button", { name: "Show more, 50 left" }))
    fireEvent.click(screen.getByRole("button", { name: "Show more, 10 left" }))
    expect(document.querySelectorAll("li")).toHaveLength(90)
  })
})
