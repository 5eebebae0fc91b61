import { fireEvent, screen, waitFor } from "@testing-library/react"
import { Route, Routes } from "react-router"
import { describe, expect, it } from "vitest"
import { serve, SETTINGS, show, WORKING } from "../../testing/harness.test"
import { lettersOf } from "./letters"
import type { Likely, Wrong } from "./queries"
import { WrongScreen } from "./WrongScreen"

const cause = (id: string, name: string, word: Likely["word"], on: string): Likely => ({
  id,
  name,
  word,
  weight: 0.5,
  speaks_for: [{ words: `${name} seen`, on, leaf: null }],
  speaks_against: [{ words: "no crust", on: null, leaf: null }],
  decides: "a reading",
})

const step = (
  id: string,
  harm: number,
  state: Wrong["stairs"]["result"]["steps"][number]["state"],
) => ({
  id,
  name: `Check ${id}`,
  how: "Look.",
  harm,
  cost: 0,
  minutes: 5,
  costs_plant:
    ["touches nothing", "changes one thing", "moves roots", "bares the roots"][harm] ?? "",
  state,
  decides: "salt or not",
  bits: 0.3,
  ways: [],
  found: state === "done" ? "runoff inside" : "",
  found_on: state === "done" ? "2026-11-20" : null,
  why_not: state === "not now" ? "First what touches nothing." : "",
})

const water = cause("fcl", "Fluoride in the water", "likely", "2026-08-28")
const air = cause("rh", "Low humidity", "possible", "2026-11-10")

function page(more: Partial<Wrong> = {}): Wrong {
  return {
    today: "2026-11-23",
    pot_id: 13,
    code: "C-03",
    name: "Ctenanthe",
    signs: ["brown tips"],
    not_seen: ["white crust"],
    not_looked_for: ["root tips dead"],
    working: WORKING,
    together:
      "Two causes, one after the other: Fluoride first, then Low humidity. Treat one at a time.",
    shown: [water, air],
    excluded: [],
    readings: {
      id: "brown",
      title: "Brown tips",
      first: {
        name: "Water first",
        says: "water",
        school: "first",
        causes: [water, air],
        together: "",
        working: WORKING,
      },
      second: {
        name: "Air first",
        says: "air",
        school: "second",
        causes: [air, water],
        together: "",
        working: WORKING,
      },
      separated_by: "Runoff and air.",
      check: "runoff",
      agree: false,
    },
    advice: {
      sayings: [
        { kind: "check first", words: "No cure before the check.", until: null },
        { kind: "hold", words: "Feed waits: Salt is possible.", until: null },
      ],
      advised: [],
      closed: [{ act: "feed", why: "Salt is possible." }],
    },
    stairs: {
      result: {
        steps: [step("lift", 0, "done"), step("rh_t", 0, "next"), step("unpot", 3, "not now")],
        next: "rh_t",
        sentence: "Next: Check rh_t.",
      },
      working: WORKING,
    },
    evidence: {
      since: "2026-07-01",
      waters: [{ water: "Town water", since: "2026-08-01", until: "2026-10-20" }],
      air: [{ on: "2026-10-20", humidity_pct: 38, night_C: null }],
      humidity_asked_low: 50,
      humidity_asked_high: 75,
      leaves: [
        {
          begun_on: "2026-07-20",
          seen_on: "2026-08-28",
          marked: true,
          number: 24,
          opened_on: "2026-08-20",
        },
      ],
      exposures: [],
      events: [],
      runoffs: [{ on: "2026-11-11", ec_uS_cm: 1180 }],
    },
    case: null,
    closed: [],
    own_closed: 0,
    sentence: "Likely: Fluoride in the water.",
    ...more,
  }
}

const CHECKS = {
  "GET /api/checks": {
    body: [
      {
        id: "rh_t",
        name: "Humidity",
        how: "At the leaf.",
        outcomes: [{ finding: "air_dry", words: "Air too dry" }],
      },
    ],
  },
  "GET /api/causes": {
    body: {
      causes: [{ id: "rh", name: "Low humidity", closed: 2, prior_pct: 7, own_prior_pct: 10 }],
      closed: 2,
    },
  },
}

const open = () =>
  show(
    <Routes>
      <Route path="/wrong/:id" element={<WrongScreen />} />
    </Routes>,
    "/wrong/13",
  )

describe("what is wrong", () => {
  it("sets two readings side by side in words, with letters to their days and no percentage", async () => {
    serve({ ...SETTINGS, ...CHECKS, "GET /api/pots/13/wrong": { body: page() } })
    open()
    expect(await screen.findByText("Water first")).toBeTruthy()
    expect(screen.getByText("Air first")).toBeTruthy()
    expect(screen.getByText(/The two readings differ/)).toBeTruthy()
    expect(screen.getByText(/Two causes, one after the other/)).toBeTruthy()
    expect(screen.queryByText(/[0-9] in 100|[0-9] %$/)).toBeNull()
    expect(screen.getByRole("img", { name: /leaf 24 begun 20 Jul, marked 28 Aug/ })).toBeTruthy()
    expect([...lettersOf(page()).entries()]).toEqual([
      ["2026-08-28", "a"],
      ["2026-11-10", "b"],
    ])
  })

  it("enters a check in one press and says what waits", async () => {
    const sent = serve({
      ...SETTINGS,
      ...CHECKS,
      "GET /api/pots/13/wrong": { body: page() },
      "POST /api/checks": { body: { id: 5 } },
    })
    open()
    expect(await screen.findByText("Feed waits: Salt is possible.")).toBeTruthy()
    expect(screen.getByText("First what touches nothing.")).toBeTruthy()
    fireEvent.click(screen.getAllByRole("button", { name: /Check rh_t/ })[0] as HTMLElement)
    fireEvent.click(await screen.findByRole("button", { name: "Air too dry" }))
    await waitFor(() =>
      expect(sent.some((s) => s.path === "/api/checks" && s.method === "POST")).toBe(true),
    )
    const body = sent.find((s) => s.path === "/api/checks" && s.method === "POST")?.body
    expect(body).toMatchObject({ pot_id: 13, check: "rh_t", finding: "air_dry", on: "2026-11-23" })
  })

  it("closes a case with what it was, and can reset what closed cases moved", async () => {
    const sent = serve({
      ...SETTINGS,
      ...CHECKS,
      "GET /api/pots/13/wrong": {
        body: page({
          case: {
            id: 4,
            opened_on: "2026-11-10",
            closed_on: null,
            cause: "",
            reading: "",
            school: "",
            note: "",
          },
        }),
      },
      "POST /api/cases/4/close": { body: { id: 4 } },
      "POST /api/causes/reset": { body: { id: 2 } },
    })
    open()
    fireEvent.click(await screen.findByRole("button", { name: "Close the case" }))
    fireEvent.change(await screen.findByLabelText("Cause"), { target: { value: "rh" } })
    fireEvent.click(screen.getAllByRole("button", { name: "Close the case" })[1] as HTMLElement)
    await waitFor(() => expect(sent.some((s) => s.path === "/api/cases/4/close")).toBe(true))
    expect(sent.find((s) => s.path === "/api/cases/4/close")?.body).toMatchObject({ cause: "rh" })
    fireEvent.click(await screen.findByRole("button", { name: "Reset to the tables" }))
    await waitFor(() => expect(sent.some((s) => s.path === "/api/causes/reset")).toBe(true))
  })

  it("teaches how to begin where nothing was seen", async () => {
    const none = page({
      signs: [],
      readings: null,
      shown: [],
      together: "",
      sentence: "Mark what you see.",
    })
    serve({ ...SETTINGS, ...CHECKS, "GET /api/pots/13/wrong": { body: none } })
    open()
    expect(await screen.findByText("Mark what you see.")).toBeTruthy()
  })
})
