import { fireEvent, screen, waitFor } from "@testing-library/react"
import { Route, Routes } from "react-router"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { ROW, serve, SETTINGS, show, WORKING } from "../../testing/harness.test"
import { useQuery } from "@tanstack/react-query"
import { ComesOutForm } from "./ComesOutForm"
import { LearntBars } from "./LearntBars"
import { Session } from "./Session"
import { type WhatIf, yearsQuery } from "./queries"
import { SchoolsTogetherCard } from "./SchoolsTogetherCard"
import { StationRow } from "./StationRow"
import { WhatIfBar } from "./WhatIfBar"

const POINT = (litres: number, runoff_uS_cm: number) => ({
  litres,
  runoff_uS_cm,
  low_uS_cm: runoff_uS_cm * 0.8,
  high_uS_cm: runoff_uS_cm * 1.2,
})
const LIVE: Schemas["LiveFlush"] = {
  status: "falling",
  sentence: "Falling: 1200, until 700.",
  stop: false,
  poured_L: 0.4,
  drained_L: 0.4,
  left_L: 0.5,
  left_se_L: 0.1,
  left_low_L: 0.3,
  left_high_L: 0.7,
  next_pass_L: 0.252,
  next_soak_min: 20,
  next_runoff: POINT(0.65, 950),
  slope_per_L: 1.2,
  tailing: null,
  alike: null,
  under: 0,
  drained_after: [0.4],
  curve: [POINT(0.4, 1200), POINT(0.65, 950), POINT(0.95, 760)],
}
const FLUSH: Schemas["FlushOut"] = {
  id: 3,
  pot_id: 6,
  code: "P-06",
  name: "the big clump",
  on: "2026-11-23",
  started_at: "2026-11-23T08:00:00",
  water: "Rain",
  water_uS_cm: 34,
  target_uS_cm: 800,
  stop_runoff_uS_cm: 700,
  round_L: 0.3,
  pause_min: 20,
  before_uS_cm: 1500,
  after_uS_cm: null,
  ended_as: "",
  tray_emptied: null,
  runoff_went: "",
  feed_on: null,
  feed_sentence: "",
  look_on: null,
  passes: [
    {
      id: 9,
      volume_L: 0.4,
      drained_L: null,
      runoff_uS_cm: 1200,
      minute: 0,
      soaked_min: 0,
      drained_after_L: 0.4,
    },
  ],
  last_poured_at: "2026-11-23T08:00:00",
  live: { result: LIVE, working: WORKING },
  planned: [POINT(0.3, 1300), POINT(0.6, 900)],
}

const running = () =>
  show(
    <Routes>
      <Route path="/flush/:id" element={<Session />} />
    </Routes>,
    "/flush/3",
  )

describe("a flush as it runs", () => {
  it("draws its runoffs, says what is left, and sends a pass once with the moment it was poured", async () => {
    const sent = serve({
      ...SETTINGS,
      "GET /api/flushes/3": { body: FLUSH },
      "POST /api/flushes/3/passes": { body: FLUSH },
    })
    running()
    const chart = await screen.findByRole("img", {
      name: /Runoff by litres: 1\s200; stop under 700/,
    })
    expect(chart).toBeTruthy()
    expect(screen.getByText("to go, 0.3 to 0.7")).toBeTruthy()
    expect(screen.getByRole("listitem", { name: /^Pass 1: poured, runoff 1\s200$/ })).toBeTruthy()
    fireEvent.change(screen.getByLabelText("The last that runs out, µS/cm"), {
      target: { value: "980" },
    })
    fireEvent.click(screen.getByRole("button", { name: "Poured 250 mL" }))
    await waitFor(() => expect(sent.some((s) => s.path.endsWith("/passes"))).toBe(true))
    const one = sent.filter((s) => s.path.endsWith("/passes"))
    expect(one).toHaveLength(1)
    expect(one[0]?.body).toMatchObject({ volume: "250", runoff_ec: "980", read_twice: false })
    expect((one[0]?.body as { at: string }).at).toMatch(/^\d{4}-\d\d-\d\dT/)
    expect(one[0]?.key).toBeTruthy()
  })

  it("puts a refusal beside its field and keeps what was typed", async () => {
    const detail = "Runoff 9800 µS/cm is more than ten times what is expected, 950."
    serve({
      ...SETTINGS,
      "GET /api/flushes/3": { body: FLUSH },
      "POST /api/flushes/3/passes": {
        status: 422,
        body: { detail, errors: [{ pointer: "/passes/1/runoff_ec", detail }] },
      },
    })
    running()
    const field = await screen.findByLabelText("The last that runs out, µS/cm")
    fireEvent.change(field, { target: { value: "9800" } })
    fireEvent.click(screen.getByRole("button", { name: "Poured 250 mL" }))
    expect(await screen.findByText(detail)).toBeTruthy()
    expect((field as HTMLInputElement).value).toBe("9800")
  })

  it("asks for its end once it may stop, with the tray and where the runoff went", async () => {
    const done = { ...LIVE, stop: true, sentence: "Target reached: the last two agree." }
    const sent = serve({
      ...SETTINGS,
      "GET /api/flushes/3": { body: { ...FLUSH, live: { result: done, working: WORKING } } },
      "POST /api/flushes/3/end": { body: { ...FLUSH, ended_as: "reached" } },
    })
    running()
    fireEvent.change(await screen.findByLabelText("Saucer or tray tipped out"), {
      target: { value: "yes" },
    })
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() =>
      expect(sent.find((s) => s.path.endsWith("/end"))?.body).toMatchObject({
        broken_off: false,
        tray_emptied: true,
      }),
    )
  })
})

describe("the station", () => {
  it("says of each pot why it is held, or when it crosses", () => {
    const pot: Schemas["FlushRow"] = {
      row: ROW,
      share: 0.7,
      due: false,
      held: "Rot seen: wet roots are dying.",
      held_ends: "A new root measured.",
      from_above: "yes",
      running_id: 3,
      last_flush_on: null,
      ahead: {
        crosses_on: "2027-03-14",
        earliest_on: "2027-02-01",
        latest_on: null,
        days: ["2026-11-29", "2027-02-28"],
        shares: [0.7, 0.9],
      },
    }
    serve(SETTINGS)
    show(
      <StationRow
        pot={pot}
        ahead={pot.ahead}
        today="2026-11-23"
        chosen={false}
        onChoose={() => undefined}
      />,
    )
    expect(screen.getByText(/No flush: Rot seen: wet roots are dying. A new root/)).toBeTruthy()
    expect(screen.getByRole("link", { name: "Being flushed: go on" })).toBeTruthy()
    expect(
      screen.getByRole("img", { name: /ceiling about 14 Mar 2027/, hidden: true }),
    ).toBeTruthy()
  })

  it("shows how many would cross under each change for all, and asks for the chosen one", async () => {
    const sum = (change: WhatIf, crossing: number) => ({
      change,
      pots: 24,
      crossing,
      litres_month: 20,
      more_litres_month: 0,
      sentence: "",
    })
    const page: Schemas["ChangesPage"] = {
      change: "as it is",
      together: {
        result: {
          changes: [sum("as it is", 7), sum("every fourth pour a rinse", 2)],
          best: "every fourth pour a rinse",
          sentence: "As it is, 7 of 24 cross within a year; with every fourth pour a rinse, 2.",
        },
        working: WORKING,
      },
      years: [],
    }
    serve({ ...SETTINGS, "GET /api/flush/changes": { body: page } })
    const asked: string[] = []
    const Bar = () => (
      <WhatIfBar
        kinds={[{ id: "pleione", name: "Pleione" }]}
        kind=""
        change="as it is"
        years={useQuery(yearsQuery("as it is", "", "1,2"))}
        onKind={(k) => asked.push(k)}
        onChange={(c) => asked.push(c)}
      />
    )
    show(<Bar />)
    const choice = await screen.findByRole("option", { name: "every fourth pour a rinse: 2 over" })
    expect(choice).toBeTruthy()
    expect(screen.getByText(/with every fourth pour a rinse, 2\./)).toBeTruthy()
    fireEvent.change(screen.getByLabelText("The year ahead with"), {
      target: { value: "every fourth pour a rinse" },
    })
    fireEvent.change(screen.getByLabelText("Kind"), { target: { value: "pleione" } })
    expect(asked).toEqual(["every fourth pour a rinse", "pleione"])
  })

  it("plays the schools over every pot only when asked", async () => {
    const y = { pots: 24, flushes: 54, litres: 28.6, sentence: "" }
    const sent = serve({
      ...SETTINGS,
      "GET /api/flush/schools": {
        body: {
          result: {
            schools: [
              { ...y, school: "as logged", words: "As it was done", days_over: 548 },
              { ...y, school: "by forecast", words: "By the forecast", days_over: 0 },
            ],
            sentence: "By the forecast keeps 24 pots lowest.",
          },
          working: WORKING,
        },
      },
    })
    show(<SchoolsTogetherCard kind="" of="every pot" />)
    expect(sent.filter((s) => s.path.endsWith("/schools"))).toHaveLength(0)
    fireEvent.click(screen.getByRole("button", { name: "Compare" }))
    expect(await screen.findByText("By the forecast keeps 24 pots lowest.")).toBeTruthy()
    expect(screen.getByRole("button", { name: /Pot-days over, As it was done/ })).toBeTruthy()
  })

  it("tells what is known closer and what readings have not told", () => {
    const value = {
      id: "ln_eta",
      name: "leaching efficiency",
      unit: "",
      default: 0.5,
      default_low: 0.3,
      default_high: 0.8,
      learnt: 0.62,
      low: 0.5,
      high: 0.75,
      narrowed: 0.4,
      sentence: "Known 40 % closer than before.",
    }
    show(<LearntBars values={[value]} />)
    expect(screen.getByText("Known 40 % closer than before.")).toBeTruthy()
  })

  it("takes a crust without a meter", async () => {
    const sent = serve({
      ...SETTINGS,
      "POST /api/pots/6/readings": { body: { id: 4, felt_id: null } },
    })
    show(<ComesOutForm potId={6} code="P-06" today="2026-11-23" drains onClose={() => undefined} />)
    fireEvent.change(await screen.findByLabelText("Crust on rim or surface"), {
      target: { value: "clear" },
    })
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({ crust: "clear", ec: "" }),
    )
  })
})
