import { fireEvent, screen, waitFor, within } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { serve, SETTINGS, show, WORKING } from "../../testing/harness.test"
import { Finished } from "./Finished"
import { Screen } from "./Screen"
import { newWalk } from "./walk"

const many = <T,>(n: number, one: (i: number) => T) =>
  Array.from({ length: n }, (_, i) => one(i + 1))
const can = (n: number, pots: number): Schemas["Can"] => ({
  letter: `C${n}`,
  job: "plain",
  title: "2 L rain, nothing added",
  water_id: 1,
  water_name: "rain",
  volume_L: 2,
  ec_uS_cm: 35,
  ec_low_uS_cm: 35,
  ec_high_uS_cm: 35,
  nitrogen_mg_L: 0,
  strength: null,
  strength_value: 0,
  weighing: "",
  why: "Kinds like these share it.",
  dose: null,
  working: null,
  pots: many(pots, (i) => pot(1000 * n + i)),
  water_measured: true,
  to_mix: false,
  product_id: null,
  product: "",
  made_for: "root",
})
const pot = (id: number): Schemas["CanPot"] => ({
  pot_id: id,
  code: `P-${id}`,
  name: "",
  place: "Bench",
  amount_mL: 200,
  route: "top",
  isolated: false,
  why: "",
  given: "plain water",
  step_mL: 50,
  row: 0,
  then: "",
  together: false,
})
const job = (n: number): Schemas["ErrandOut"] => ({
  id: `job-${n}`,
  kind: "look",
  due_on: "2026-11-20",
  late_days: 3,
  pot_id: null,
  title: `Job ${n}`,
  sentence: "",
  done_here: true,
})

/** A day of cans of so many pots each, and jobs besides, so much of each list as is asked for. */
function page(cans: number, pots: number, jobs = 0, rows = 1e6): Schemas["RoundPage"] {
  const sent = many(cans, (n) => can(n, pots)).slice(0, rows)
  const left = (n: number) => Math.max(0, n - rows)
  return {
    today: "2026-11-23",
    plan: {
      cans: sent.map((c) => ({ ...c, pots: c.pots.slice(0, rows) })),
      looks: [],
      pots_due: cans * pots,
      minutes: 60,
      legs: [],
      saving: "",
      clean_hands: "",
    },
    working: WORKING,
    jobs: many(jobs, job).slice(0, rows),
    salt: [],
    left: {
      cans: left(cans),
      looks: 0,
      jobs: left(jobs),
      pots: left(pots) ? Object.fromEntries(sent.map(({ letter }) => [letter, left(pots)])) : {},
    },
  }
}
const day = (cans: number, pots: number, jobs: number) =>
  serve({
    ...SETTINGS,
    "GET /api/timers": { body: [] },
    "GET /api/round": ({ query }) => ({
      body: page(cans, pots, jobs, Number(query.get("rows") ?? 1e6)),
    }),
  })
const cards = () => screen.getAllByRole("region", { name: /^Can C/ }).length
const asked = (sent: ReturnType<typeof day>) =>
  sent.filter((s) => s.path === "/api/round").map((s) => s.query.get("rows"))
const more = (left: number, of = screen as Pick<typeof screen, "findByRole">) =>
  of.findByRole("button", { name: `Show more, ${left} left` })

describe("a long round", () => {
  it("shows its beginning, counts all of it, and goes on to the end", async () => {
    const sent = day(50, 1, 60)
    show(<Screen />)
    expect(await screen.findByRole("heading", { name: /50 pots in 50 cans/ })).toBeTruthy()
    await waitFor(() => expect(cards()).toBe(20))
    fireEvent.click(await more(30))
    expect(cards()).toBe(40)
    fireEvent.click(await more(10))
    expect(await screen.findByRole("region", { name: "Can C50" })).toBeTruthy()
    fireEvent.click(screen.getByRole("button", { name: "55 more" }))
    fireEvent.click(await more(20))
    expect(await screen.findByText("Job 60")).toBeTruthy()
    expect(asked(sent)).toEqual(["40", null])
  })

  it("goes on within a can as well", async () => {
    day(1, 90, 0)
    show(<Screen />)
    const one = within(await screen.findByRole("region", { name: "Can C1" }))
    expect(one.getAllByRole("listitem").length).toBe(40)
    fireEvent.click(await more(50, one))
    fireEvent.click(await more(10, one))
    expect(one.getAllByRole("listitem").length).toBe(90)
  })

  it("is asked for once where it is short", async () => {
    const sent = day(3, 2, 6)
    show(<Screen />)
    expect(await screen.findByRole("heading", { name: /6 pots in 3 cans/ })).toBeTruthy()
    fireEvent.click(await screen.findByRole("button", { name: "1 more" }))
    expect(await screen.findByText("Job 6")).toBeTruthy()
    expect(screen.queryByRole("button", { name: /^Show more/ })).toBeNull()
    expect(asked(sent)).toEqual(["40"])
  })
})

describe("the end of a walk", () => {
  const ended = (pots: number, done: number[]) => {
    const sent = serve({ "POST /api/timers": { status: 201, body: { id: 1 } } })
    show(<Finished walk={{ ...newWalk(page(pots > 0 ? 1 : 0, pots)), done }} />)
    return sent
  }
  const heading = () => screen.getByRole("heading", { level: 1 }).textContent
  const saucers = () => screen.queryByRole("button", { name: /saucers/ })

  it("counts what was poured, names what was not, and times the saucers of what was", async () => {
    const sent = ended(3, [1001, 1003])
    expect(heading()).toBe("The round is done")
    expect(screen.getByText(/2 of 3 pots poured. Empty the saucers/)).toBeTruthy()
    expect(screen.getByText("Not poured: P-1002.")).toBeTruthy()
    fireEvent.click(screen.getByRole("button", { name: /saucers/ }))
    expect(await screen.findByText(/goes on saying so/)).toBeTruthy()
    expect(sent.at(-1)?.body).toEqual({ pot_ids: [1001, 1003], minutes: 20 })
    expect(saucers()).toBeNull()
  })

  it("asks for no saucers where nothing was poured, and counts on after a dozen names", () => {
    ended(14, [])
    expect(heading()).toBe("Nothing was poured")
    expect(screen.getByText("0 of 14 pots poured.")).toBeTruthy()
    expect(screen.getByText(/^Not poured: P-1001, .*P-1012 and 2 more\.$/)).toBeTruthy()
    expect(saucers()).toBeNull()
  })

  it("names nothing where nothing was due", () => {
    ended(0, [])
    expect(heading()).toBe("Nothing is due today")
    expect(screen.queryByText(/poured/)).toBeNull()
  })
})
