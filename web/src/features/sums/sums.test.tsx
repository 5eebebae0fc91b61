import { fireEvent, screen, waitFor, within } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import { type Answer, type Sent, serve, SETTINGS, show, WORKING } from "../../testing/harness.test"
import { Screen } from "./Screen"
import { span } from "./sum"

const told = (low: number, middle: number, high: number, measured: boolean) => ({
  low_uS_cm: low,
  middle_uS_cm: middle,
  high_uS_cm: high,
  measured,
  sentence: `${low} to ${high} told`,
  working: WORKING,
})
const who = (asked: unknown, sentence: string) => ({
  result: { kinds: [], asked, yes: 9, undecided: 3, sentence },
  working: WORKING,
})
const DOSE = {
  amount_g: 0.615,
  amount_mL: null,
  ec_total_uS_cm: 355,
  ec_low_uS_cm: 306,
  ec_high_uS_cm: 403,
  weighable: false,
  stock: { mass_g: 30.8, bottle_mL: 1000, draw_mL: 20 },
}
const water = (sent: Sent): Answer => {
  const body = sent.body as { water: { value: string; unit: string }; plant: string }
  const read = body.water.value === "250"
  return {
    body: {
      water: read ? told(357, 428, 500, false) : told(100, 450, 900, false),
      thinner: told(5, 20, 60, false),
      who: body.plant
        ? who({ answer: "thinned", one_in: 8 }, "The mark is 120.")
        : who(null, "9 kinds may drink it."),
    },
  }
}
const TABLE = {
  "GET /api/settings": { body: SETTINGS },
  "GET /api/options": {
    body: {
      today: "2026-11-23",
      media: [{ value: "bark_mix", label: "Bark" }],
      profiles: [{ value: "masdevallia", label: "Masdevallia" }],
    },
  },
  "GET /api/water-kinds": {
    body: [
      { value: "mains", label: "mains", note: "", runs: true },
      { value: "rain", label: "rain", note: "", runs: false },
    ],
  },
  "GET /api/water": { body: { waters: [] } },
  "POST /api/sums/water": water,
  "POST /api/sums/feed": (sent: Sent): Answer => ({
    body: {
      grade_sentence: "Read as 13-3-15.",
      echo: "",
      dose: { result: DOSE, working: WORKING },
      check: (sent.body as { read: unknown }).read
        ? { result: { verdict: "as expected", sentence: "Within its range." }, working: WORKING }
        : null,
    },
  }),
  "POST /api/sums/blend": {
    body: {
      result: { parts: [{ litres: 1.4 }, { litres: 8.6 }], ec25_uS_cm: 120 },
      working: WORKING,
    },
  },
  "POST /api/sums/flush": {
    body: {
      result: { low_L: 1.5, high_L: 2.4, rounds: 7, after: [900, 600], sentence: "7 rounds." },
      working: WORKING,
    },
  },
}
const card = (title: string) => {
  const found = screen.getByRole("heading", { name: title }).closest("section")
  if (!found) throw new Error(`no card ${title}`)
  return within(found as HTMLElement)
}

describe("the quick sums", () => {
  it("answer from an empty collection, each with its working", async () => {
    serve(TABLE)
    show(<Screen />)
    for (const [title, figure] of [
      ["What is this water?", "100 to 900"],
      ["How much feed for this can?", "0.615"],
      ["How much to flush?", "1.5 to 2.4"],
      ["How much of each?", "1.4 L in 10 L"],
    ] as const)
      expect(
        await card(title).findByRole("button", { name: new RegExp(`${figure}.*Show working`) }),
      ).toBeTruthy()
    expect(card("Is this can right?").getByText(/Expected 306 to 403/)).toBeTruthy()
    expect(card("How much feed for this can?").getByText(/30.8 g/)).toBeTruthy()
    expect(screen.queryByRole("button", { name: "Save as a reading" })).toBeNull()
  })

  it("send the water that was typed to every other sum", async () => {
    const sent = serve(TABLE)
    show(<Screen />)
    fireEvent.change(screen.getByLabelText("The pen shows"), { target: { value: "250" } })
    fireEvent.change(screen.getByLabelText("Unit"), { target: { value: "ppm" } })
    expect(screen.getByLabelText("ppm scale")).toBeTruthy()
    expect(await screen.findByText("357 to 500 told")).toBeTruthy()
    await waitFor(() =>
      expect(
        sent.some(
          (s) =>
            s.path === "/api/sums/blend" &&
            (s.body as { first: { value: string; scale: unknown } }).first.value === "250",
        ),
      ).toBe(true),
    )
    expect(card("How much to flush?").getByLabelText("Runoff reads, ppm")).toBeTruthy()
  })

  it("say how far a water is thinned for a plant, and whether the can is right", async () => {
    serve(TABLE)
    show(<Screen />)
    await screen.findByRole("option", { name: "Masdevallia" })
    fireEvent.change(screen.getByLabelText("Plant"), { target: { value: "masdevallia" } })
    expect(await screen.findByText(/Not plain: 1 part in 8/)).toBeTruthy()
    fireEvent.change(card("Is this can right?").getByLabelText(/The pen reads/), {
      target: { value: "360" },
    })
    expect(await screen.findByText("Within its range.")).toBeTruthy()
  })

  it("put a refusal at the sum it belongs to and leave the others", async () => {
    serve({
      ...TABLE,
      "POST /api/sums/flush": { status: 422, body: { detail: "Use a purer water.", errors: [] } },
    })
    show(<Screen />)
    expect((await card("How much to flush?").findByRole("alert")).textContent).toBe(
      "Use a purer water.",
    )
    expect(await card("How much of each?").findByText(/1.4 L in 10 L/)).toBeTruthy()
  })

  it("offer a measured water as a reading where there is a water to save it to", async () => {
    const sent = serve({
      ...TABLE,
      "GET /api/water": { body: { waters: [{ id: 4, name: "Tap" }] } },
      "POST /api/sums/water": {
        body: {
          ...(water({ body: { water: {}, plant: "" } } as Sent).body as object),
          water: told(250, 250, 250, true),
        },
      },
      "POST /api/waters/4/readings": { status: 201, body: { id: 7 } },
    })
    show(<Screen />)
    fireEvent.change(screen.getByLabelText("The pen shows"), { target: { value: "250" } })
    fireEvent.click(await screen.findByRole("button", { name: "Save as a reading" }))
    await waitFor(() =>
      expect(sent.find((s) => s.path === "/api/waters/4/readings")?.body).toMatchObject({
        value: "250",
        unit: "µS/cm",
        scale: null,
      }),
    )
  })

  it("save a feed as a can, a blend as a can of two waters, and what ran off a pot", async () => {
    const blended = { litres: 1.36, share: 0.136 }
    const sent = serve({
      ...TABLE,
      "GET /api/water": {
        body: {
          waters: [
            { id: 4, name: "Tap" },
            { id: 5, name: "Rain" },
          ],
        },
      },
      "GET /api/pots/names": { body: [{ id: 9, code: "P-09", name: "Paphiopedilum" }] },
      "POST /api/sums/blend": {
        body: {
          result: { parts: [blended, { litres: 8.64, share: 0.864 }], ec25_uS_cm: 120 },
          working: WORKING,
        },
      },
      "POST /api/sums/feed/can": {
        status: 201,
        body: {
          id: 3,
          name: "Feed 13-3-15, 40 mg/L N",
          feed: "Feed 13-3-15",
          feed_added: true,
          predicted_uS_cm: 355,
          predicted_low_uS_cm: 306,
          predicted_high_uS_cm: 403,
        },
      },
      "POST /api/batches": { status: 201, body: { id: 6, name: "Two waters" } },
      "POST /api/pots/9/readings": { status: 201, body: { id: 8 } },
    })
    show(<Screen />)
    const [feed, blend] = await waitFor(() => {
      const found = screen.getAllByRole("button", { name: "Save as a can" })
      expect(found).toHaveLength(2)
      return found as [HTMLElement, HTMLElement]
    })
    fireEvent.click(feed)
    await screen.findByText(/expect 306 to 403 µS\/cm\. Feed 13-3-15 stands on the shelf\./)
    expect(sent.find((s) => s.path === "/api/sums/feed/can")?.body).toMatchObject({
      water_id: 4,
      feed: { grade: "13-3-15", volume: "2", strength: "nitrogen", value: "40", read: null },
    })
    fireEvent.click(blend)
    await screen.findByText("Two waters saved as a can.")
    expect(sent.find((s) => s.path === "/api/batches")?.body).toMatchObject({
      product_id: null,
      made_on: "2026-11-23",
      volume: 10,
      blend: [
        { water_id: 4, share: 0.136 },
        { water_id: 5, share: 0.864 },
      ],
    })
    fireEvent.click(await screen.findByRole("button", { name: "Save the runoff" }))
    await screen.findByText("Saved as what runs off.")
    expect(sent.find((s) => s.path === "/api/pots/9/readings")?.body).toMatchObject({
      ec: "1240",
      unit: "µS/cm",
      method: "pour-through",
    })
  })

  it.each([
    [3, 3, "3"],
    [3, 5, "3 to 5"],
  ])("write %d and %d as %s", (low, high, words) =>
    expect(span(low, high, (n) => String(n))).toBe(words),
  )
})
