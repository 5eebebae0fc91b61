import { fireEvent, screen, waitFor } from "@testing-library/react"
import { Route, Routes } from "react-router"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { serve, SETTINGS, show, WORKING } from "../../testing/harness.test"
import { AnswerScreen } from "./AnswerScreen"
import { ChangesScreen } from "./ChangesScreen"
import { TrialScreen } from "./TrialScreen"
import { TrialsScreen } from "./TrialsScreen"
import { change, range } from "./words"

const value = (on: string, mm: number, formed: "formed before" | "formed after") => ({
  on,
  value: mm,
  number: null,
  formed,
  weight: formed === "formed after" ? 1 : 0,
  share: 0.7,
})

type Result = Schemas["Computed_DidItHelp_"]["result"]

const result = (more: Partial<Result> = {}): Result => ({
  state: "open",
  opens_on: "2026-09-18",
  closes_on: "2026-10-06",
  against: "twin",
  treated: [value("2026-06-01", 142, "formed before"), value("2026-11-07", 159, "formed after")],
  control: [value("2026-06-01", 207, "formed before"), value("2026-11-10", 217, "formed after")],
  measured_shown: 6.2,
  by_itself_shown: 4.9,
  middle_shown: 2.9,
  low_shown: -15,
  high_shown: 24,
  chance_up: 0.58,
  measured: 0.06,
  se: 0.2,
  counting: 2,
  grade: "weak",
  because: ["One pair."],
  stages: [
    { name: "Too early", since: "2026-09-08", until: "2026-09-17", says: "", state: "past" },
    { name: "Second leaf", since: "2026-11-07", until: "2026-11-07", says: "", state: "now" },
    { name: "Settled", since: "2027-02-15", until: null, says: "", state: "to come" },
  ],
  stronger: [
    { what: "Six pairs", low_shown: -3, high_shown: 15 },
    { what: "Change one thing next time", low_shown: null, high_shown: null },
  ],
  sight: [{ pairs: 6, percent: 24 }],
  one_sided: [{ on: "2026-09-08", words: "feed 110 to 24 mg/L N", whose: "one" }],
  shared: [{ on: "2026-10-14", words: "heating on", whose: "both" }],
  headline: "Cannot tell yet",
  sentence: "More likely longer than shorter, 58 in 100; one pair: weak.",
  ...more,
})

const flushed = {
  key: "flush-2026-09-08",
  on: "2026-09-08",
  kind: "flush",
  words: "flushed",
  at_place: false,
}

const answers = (more: Partial<Result> | null = {}): Schemas["PotAnswers"] => ({
  today: "2026-11-23",
  pot_id: 6,
  code: "P-06",
  name: "the big clump",
  changes: more ? [flushed] : [],
  measures: [{ id: "leaf length", name: "length of finished leaves", unit: "%", values: 6 }],
  chosen: more && {
    change: flushed,
    measure: "leaf length",
    unit: "%",
    log_scale: true,
    window_why: "by the kind’s window for too much salt",
    window_low: 10,
    window_high: 28,
    against: more.against ?? "twin",
    twin: more.against ? null : { id: 7, name: "P-07 its division", why: "division or sibling" },
    twins: [],
    answer: { result: result(more), working: WORKING },
  },
})

const PAIR = {
  "GET /api/pots/6/pair": {
    body: {
      first: "P-06",
      second: "P-07",
      seen: {
        lines: [{ name: "feed", of: "care", first: "24 mg/L N", second: "28 mg/L N" }],
        alike: 8,
        sentence: "feed of the care differ: it may be care. One pair, weak.",
      },
    },
  },
}

const at = (path: string, element: React.ReactNode, where: string) =>
  show(
    <Routes>
      <Route path={path} element={element} />
    </Routes>,
    where,
  )

describe("did it help", () => {
  it("says how sure, what one side alone had, and what would narrow it", async () => {
    serve({ ...SETTINGS, ...PAIR, "GET /api/pots/6/answers": { body: answers() } })
    at("/answer/:id", <AnswerScreen />, "/answer/6")
    expect(await screen.findByRole("heading", { name: "Did it help P-06?" })).toBeTruthy()
    expect(screen.getByText("Cannot tell yet")).toBeTruthy()
    expect(screen.getByRole("img", { name: /How sure: weak/ })).toBeTruthy()
    expect(screen.getByText("P-06 only: cannot be told from it.")).toBeTruthy()
    expect(screen.getByText("Both: cancels.")).toBeTruthy()
    expect(screen.getByText("−3 to +15 %")).toBeTruthy()
    expect(screen.getByText("costs nothing")).toBeTruthy()
    expect(screen.getByRole("img", { name: /P-06: 1 Jun 142 mm, 7 Nov 159 mm/ })).toBeTruthy()
    expect(await screen.findByText(/it may be care/)).toBeTruthy()
  })

  it("says too early with its day, draws no range, and names no twin where there is none", async () => {
    const early = result({
      state: "too early",
      against: "own trend",
      headline: "Too early until 2026-12-18",
      sentence: "Too early until 2026-12-18: the first day that can count.",
      grade: "too early",
      measured_shown: null,
      low_shown: null,
      high_shown: null,
      middle_shown: null,
    })
    serve({ ...SETTINGS, "GET /api/pots/6/answers": { body: answers(early) } })
    at("/answer/:id", <AnswerScreen />, "/answer/6")
    expect(await screen.findByText("Too early until 2026-12-18")).toBeTruthy()
    expect(screen.getByText(/held against its own trend/)).toBeTruthy()
    expect(screen.queryByText("Measured")).toBeNull()
    expect(screen.getAllByText(/No twin: it may be this/).length).toBe(2)
  })

  it("teaches where nothing was changed", async () => {
    serve({ ...SETTINGS, "GET /api/pots/6/answers": { body: answers(null) } })
    at("/answer/:id", <AnswerScreen />, "/answer/6")
    expect(await screen.findByText(/Nothing was changed here/)).toBeTruthy()
  })

  it("asks for another change by its key", async () => {
    const page = answers()
    page.changes = [
      flushed,
      { ...flushed, key: "water-2026-08-01", on: "2026-08-01", words: "Tap to Rain" },
    ]
    const asked: string[] = []
    serve({ ...SETTINGS, ...PAIR, "GET /api/pots/6/answers": { body: page } })
    const fetched = globalThis.fetch
    globalThis.fetch = (input) => {
      asked.push((input as Request).url)
      return fetched(input)
    }
    at("/answer/:id", <AnswerScreen />, "/answer/6")
    fireEvent.change(await screen.findByLabelText("Change"), {
      target: { value: "water-2026-08-01" },
    })
    await waitFor(() => expect(asked.some((u) => u.includes("change=water-2026-08-01"))).toBe(true))
  })
})

const brief: Schemas["AnswerBrief"] = {
  pot_id: 6,
  code: "P-06",
  name: "x",
  key: "flush-2026-09-08",
  on: "2026-09-08",
  kind: "flush",
  question: "flush",
  words: "flushed",
  at_place: false,
  measure: "leaf length",
  unit: "%",
  against: "twin",
  beside: "P-07",
  state: "open",
  opens_on: "2026-09-18",
  grade: "weak",
  headline: "Cannot tell yet",
  sentence: "One pair: weak.",
  middle_shown: 2.9,
  low_shown: -15,
  high_shown: 24,
  measured: 0.06,
  se: 0.2,
}

describe("every change", () => {
  it("lists answers, filters by kind and draws the forest of one question", async () => {
    const together = {
      rows: [
        { name: "P-06", measured_shown: 6, low_shown: -15, high_shown: 24, weight: 0.5 },
        { name: "A-05", measured_shown: 9, low_shown: -12, high_shown: 33, weight: 0.5 },
      ],
      fixed: 0.07,
      fixed_se: 0.1,
      random: 0.07,
      random_se: 0.1,
      between: 0,
      unlike: 0,
      p: 0.4,
      effect: { middle: 0.05, sd: 0.1, low: -0.05, high: 0.15, above_zero: 0.7 },
      middle_shown: 5,
      low_shown: -7,
      high_shown: 17,
      sentence: "2 answers together.",
    }
    const rain = { ...brief, key: "w", kind: "water", words: "Tap to Rain", middle_shown: null }
    const sent = serve({
      ...SETTINGS,
      "GET /api/changes": ({ query }) => ({
        body: {
          today: "2026-11-23",
          total: query.get("kind") ? 1 : 3, // of three, two were sent
          kinds: ["flush", "water"],
          answers: query.get("kind")
            ? [rain]
            : query.get("skip") === "0"
              ? [brief, rain]
              : [{ ...rain, key: "x" }],
          questions: [
            {
              question: "flush",
              measure: "leaf length",
              unit: "%",
              asked: 2,
              answered: 2,
              together: { result: together, working: WORKING },
              sentence: "",
            },
          ],
        },
      }),
    })
    show(<ChangesScreen />)
    expect(await screen.findByText("3 changes")).toBeTruthy()
    expect(screen.getByText("+2.9 % (−15 to +24 %)")).toBeTruthy()
    fireEvent.click(screen.getByRole("button", { name: "Show more, 1 left" }))
    await waitFor(() => expect(sent.at(-1)?.query.get("skip")).toBe("2"))
    expect(screen.getByRole("img", { name: /Together −7 to \+17 %/ })).toBeTruthy()
    fireEvent.change(screen.getByLabelText("Kind of change"), { target: { value: "water" } })
    expect(await screen.findByText("1 change")).toBeTruthy()
  })
})

describe("trials", () => {
  it("shows what a plan can show before it begins, and sends it once", async () => {
    const plan = {
      design: "pairs",
      pairs: [{ first: 6, second: 7, changed: 7, apart_pct: 3 }],
      changed: [7],
      unchanged: [6],
      phases: [],
      left_out: [{ id: 9, why: "It rests." }],
      looks: ["2026-11-23", "2027-01-04"],
      ends_on: "2027-03-23",
      seed: 1,
      least_p: 1,
      can_answer: false,
      sees: null,
      leave_out_rule: "Leave a pair out only if a plant dies.",
      sentence: "1 pair: no difference would show. No answer to be called sure is possible.",
    }
    const pots = [6, 7, 9].map((id) => ({
      id,
      code: `P-0${id}`,
      name: "x",
      profile: "y",
      place: "z",
    }))
    const sent = serve({
      ...SETTINGS,
      "GET /api/trials": { body: [] },
      "GET /api/pots/names": { body: pots },
      "GET /api/water": { body: { waters: [], groups: [], verdicts: [] } },
      "POST /api/trials/preview": {
        body: {
          plan: { result: plan, working: WORKING },
          pots: pots.map((p) => ({ pot_id: p.id, code: p.code, name: p.name })),
          unit: "%",
          window_why: "tips answer another water in 14 to 60 days",
        },
      },
      "POST /api/trials": { body: { id: 3 } },
    })
    show(<TrialsScreen />)
    fireEvent.click(await screen.findByRole("button", { name: "Add a trial" }))
    fireEvent.change(screen.getByLabelText("Question"), { target: { value: "Rain?" } })
    for (const name of ["P-06 x", "P-07 x"]) fireEvent.click(await screen.findByLabelText(name))
    expect(await screen.findByText(/No answer to be called sure is possible/)).toBeTruthy()
    expect(screen.getByText("P-09: It rests.")).toBeTruthy()
    fireEvent.click(screen.getByRole("button", { name: "Save and begin" }))
    await waitFor(() =>
      expect(sent.filter((s) => s.path === "/api/trials" && s.method === "POST").length).toBe(1),
    )
    const body = sent.find((s) => s.path === "/api/trials" && s.method === "POST")?.body as {
      pot_ids: number[]
    }
    expect(body.pot_ids).toEqual([6, 7])
  })

  it("tells that a trial is confounded", async () => {
    const row: Schemas["TrialRow"] = {
      id: 1,
      question: "Tap?",
      kind: "water",
      measure: "leaf length",
      design: "pairs",
      started_on: "2026-09-01",
      ends_on: "2027-01-01",
      ended_on: null,
      running: true,
      pots: 2,
      can_answer: false,
      grade: "a hint",
      sentence: "1 pair.",
    }
    serve({
      ...SETTINGS,
      "GET /api/trials/1": {
        body: {
          today: "2026-11-23",
          row,
          plan: {
            pairs: [],
            phases: [],
            looks: [],
            design: "groups",
            leave_out_rule: "rule",
            seed: 4,
            sentence: "No answer.",
          },
          members: [
            {
              pot_id: 6,
              code: "P-06",
              name: "x",
              changed: true,
              gives: "Tap",
              gained: 1,
              left_out: "",
            },
          ],
          answer: {
            pairs: [],
            effect: null,
            grade: { grade: "a hint", because: ["One pair."], next: "", sentence: "" },
            sentence: "No pair can be read yet.",
          },
          unit: "%",
          noticed: [{ on: "2026-10-01", codes: ["P-06"], words: "repotted", one_sided: true }],
          ended_why: "",
          gained: "Leaves gained: 1 changed, 0 unchanged; one pair, a hint.",
        },
      },
    })
    at("/trials/:id", <TrialScreen />, "/trials/1")
    expect(await screen.findByText(/the trial is confounded/)).toBeTruthy()
    expect(screen.getByText(/Leaves gained: 1 changed/)).toBeTruthy()
  })
})

describe("words", () => {
  it("writes differences with their sign", () => {
    expect(change(-2.2, "%")).toBe("−2.2 %")
    expect(change(null, "%")).toBe("not measured")
    expect(range(-15, 24, "%")).toBe("−15 to +24 %")
    expect(range(null, 24, "%")).toBe("")
  })
})
