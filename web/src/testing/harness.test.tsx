// What component tests stand on: providers, a server that answers from a table, samples.
import { ChakraProvider } from "@chakra-ui/react"
import "fake-indexeddb/auto"
import { QueryClient, QueryClientProvider } from "@tanstack/react-query"
import { cleanup, configure, render } from "@testing-library/react"
import type { ReactNode } from "react"
import { MemoryRouter } from "react-router"
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest"
import type { Schemas } from "../api/client"
import type { Working } from "../api/queries"
import { system } from "../app/theme"
import { NoticeProvider } from "../ui/Notice"
import { WorkingProvider } from "../ui/WorkingProvider"

configure({ asyncUtilTimeout: 8000 }) // the tests without a browser run beside these on two processors

export type Sent = {
  method: string
  path: string
  query: URLSearchParams
  body: unknown
  key: string | null
}
export type Answer = { status?: number; body: unknown }

/** Answers fetches by "METHOD /path"; keeps what was sent. */
export function serve(table: Record<string, Answer | ((sent: Sent) => Answer)>): Sent[] {
  const sent: Sent[] = []
  vi.stubGlobal("fetch", async (request: Request) => {
    const path = new URL(request.url).pathname
    const text = request.method === "GET" ? "" : await request.text()
    const isFile = request.headers.get("content-type") === "application/octet-stream"
    const one = {
      method: request.method,
      path,
      query: new URL(request.url).searchParams,
      body: text ? (isFile ? text : (JSON.parse(text) as unknown)) : null,
      key: request.headers.get("idempotency-key"),
    }
    sent.push(one)
    const found = table[`${request.method} ${path}`]
    if (!found)
      return new Response(JSON.stringify({ detail: `nothing at ${path}` }), { status: 404 })
    const answer = typeof found === "function" ? found(one) : found
    return new Response(JSON.stringify(answer.body), {
      status: answer.status ?? 200,
      headers: { "content-type": "application/json" },
    })
  })
  return sent
}

/** What is answered to an edit of what another changed meanwhile; sent again, it is stored. */
export function elsewhere(
  field: string,
  detail: string,
  now: Record<string, unknown>,
  stored: unknown = { id: 1 },
) {
  let asked = 0
  return (): Answer => {
    asked += 1
    if (asked > 1) return { body: stored }
    const errors = [{ pointer: `/${field}`, detail }]
    return { status: 409, body: { detail, code: "changed-elsewhere", errors, facts: { now } } }
  }
}

export function show(children: ReactNode, at = "/") {
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: Infinity } },
  })
  return render(
    <ChakraProvider value={system}>
      <QueryClientProvider client={client}>
        <NoticeProvider>
          <WorkingProvider>
            <MemoryRouter initialEntries={[at]}>{children}</MemoryRouter>
          </WorkingProvider>
        </NoticeProvider>
      </QueryClientProvider>
    </ChakraProvider>,
  )
}

export const SETTINGS = {
  "GET /api/settings": {
    body: {
      ec_unit: "µS/cm",
      display: { ec: { unit: "µS/cm", factor: 1, offset: 0, digits: 3 } },
      scale_step_g: 1,
      syringe_step_mL: 0.5,
    },
  },
  "GET /api/options": {
    body: {
      sources: { label: "The product’s own label" },
      marks: ["tip", "crust"],
      moist: ["wet", "moist", "barely damp", "dry"],
      place_changes: ["heating on", "lamps changed", "other"],
      phases: ["active", "rest"],
      routes: ["top", "tray"],
      ec_units: ["µS/cm", "ppm"],
    },
  },
}

export const WORKING: Working = {
  title: "Dose",
  inputs: [
    { symbol: "N_t", label: "nitrogen wanted", value: 60, unit: "mg/L", origin: "entered" },
    { symbol: "N_g", label: "nitrogen in a gram", value: 130, unit: "mg/g", origin: "label" },
  ],
  steps: [
    { symbol: "d", label: "dose", formula: "N_t / N_g", value: 0.461538, unit: "g/L", by: "" },
  ],
  assumptions: ["No report for the rain."],
  cautions: ["Mind the scale."],
  validity: "Feeds below 3000 µS/cm.",
  sources: ["label"],
  formula_id: "mix.dose.dose",
}

export const ROW: Schemas["PotRow"] = {
  id: 6,
  code: "P-06",
  name: "the big clump",
  place: "Signal room",
  spot: "shelf 2",
  profile: "Phragmipedium",
  phase: "active",
  isolated: false,
  tags: [],
  plants: ["Phragmipedium"],
  interval_days: 4,
  left_share: 0.5,
  school: "",
  drainage: "drains",
  drains: true,
  profile_id: "paphiopedilum",
  reading_uS_cm: 409,
  reading_low_uS_cm: 243,
  reading_high_uS_cm: 640,
  ideal_low_uS_cm: 150,
  ideal_high_uS_cm: 400,
  ceiling_uS_cm: 600,
  over_ceiling: false,
  measured_uS_cm: 650,
  measured_on: "2026-10-06",
  last_pour_on: "2026-11-19",
  last_look_on: "2026-11-08",
  marks: ["tip"],
  newest_leaf_mm: 159,
  leaves_count: 12,
  holds: [],
  volume_L: 0.14,
  route: "top",
}

beforeEach(() => {
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {
        /* jsdom lays nothing out */
      }
      disconnect() {
        /* nor this */
      }
      unobserve() {
        /* nor this */
      }
    },
  )
  vi.stubGlobal("matchMedia", () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    addListener: () => undefined,
    removeListener: () => undefined,
  }))
  serve(SETTINGS)
})

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

describe("the harness", () => {
  it("answers by table and keeps what was sent", async () => {
    const sent = serve({ "POST /x": (one) => ({ body: { echo: one.body } }) })
    const answer = await fetch(
      new Request(new URL("/x", window.location.href), {
        method: "POST",
        body: '{"a":1}',
        headers: { "idempotency-key": "k" },
      }),
    )
    expect(await answer.json()).toEqual({ echo: { a: 1 } })
    expect(sent).toMatchObject([{ method: "POST", path: "/x", body: { a: 1 }, key: "k" }])
  })
})
