import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../../api/client"
import { serve, show } from "../../../testing/harness.test"
import { CareForm } from "./CareForm"
import { Holds } from "./Holds"
import { PlaceForm } from "./PlaceForm"
import { WeightForm } from "./WeightForm"

type Hold = Schemas["PotRow"]["holds"][number]
const RESTING: Hold = {
  id: "resting",
  blocks: ["feed", "flush"],
  reason: "Resting since 30 Oct: no feed.",
  release: "A new lead.",
  standing: false,
  quiet: false,
  word: "",
}
const ROOTS: Hold = {
  id: "carnivore roots",
  blocks: ["feed"],
  reason: "A carnivore.",
  release: "By choice only.",
  standing: true,
  quiet: false,
  word: "",
}
const nothing = () => undefined
const typed = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })

describe("holds", () => {
  it("tell what they block, why and until when; a rule of the kind is not to be set aside", () => {
    const { container } = show(<Holds potId={3} holds={[RESTING, ROOTS]} />)
    expect(container.textContent).toContain(
      "Hold: Resting since 30 Oct: no feed. Blocks feed, flush. Ends: A new lead.",
    )
    expect(container.textContent).toContain("A carnivore. Blocks feed. By choice only.")
    expect(screen.getAllByRole("button").map((b) => b.getAttribute("aria-label"))).toEqual([
      "Set aside the hold resting",
    ])
  })
  it("are set aside with a word that is sent once, with its key", async () => {
    const sent = serve({ "POST /api/pots/3/override": { status: 201, body: { id: 7 } } })
    show(<Holds potId={3} holds={[RESTING]} />)
    fireEvent.click(screen.getByRole("button", { name: "Set aside the hold resting" }))
    typed("Why, in a word", "a warm week")
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() => expect(screen.queryByRole("button", { name: "Save" })).toBeNull())
    expect(sent.filter((s) => s.method === "POST").map((s) => s.body)).toEqual([
      { hold_id: "resting", word: "a warm week" },
    ])
    expect(sent[0]?.key).toBeTruthy()
  })
  it("show the server's sentence beside the field when the word is missing", async () => {
    serve({
      "POST /api/pots/3/override": {
        status: 422,
        body: {
          title: "",
          status: 422,
          detail: "A word is missing.",
          errors: [{ pointer: "/word", detail: "A word is missing." }],
        },
      },
    })
    show(<Holds potId={3} holds={[RESTING]} />)
    fireEvent.click(screen.getByRole("button", { name: "Set aside the hold resting" }))
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    expect((await screen.findAllByText("A word is missing.")).length).toBeGreaterThan(0)
  })
  it("already set aside show the word and offer nothing", () => {
    const { container } = show(<Holds potId={3} holds={[{ ...RESTING, word: "a warm week" }]} />)
    expect(container.textContent).toContain(
      "Set aside: Resting since 30 Oct: no feed. Your word: a warm week",
    )
    expect(screen.queryByRole("button")).toBeNull()
  })
})

describe("what rules a pot", () => {
  it("sends school, phase and interval as chosen", async () => {
    const sent = serve({
      "POST /api/pots/3/care": { body: { id: 3 } },
      "GET /api/mix": {
        body: {
          schools: [{ school: { id: "pulse", name: "Pulse" }, edited: false, copy_id: null }],
        },
      },
    })
    let closed = false
    show(
      <CareForm
        potId={3}
        care={
          {
            school_id: null,
            phase_school: "noted",
            interval_by: "set",
            trial: "",
          } as Schemas["CarePage"]
        }
        onClose={() => {
          closed = true
        }}
      />,
    )
    await screen.findByRole("option", { name: "Pulse" })
    typed("Feeding school", "pulse")
    typed("Phase told", "growth")
    typed("Days between", "learnt")
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() => expect(closed).toBe(true))
    expect(sent.find((s) => s.method === "POST")?.body).toEqual({
      school_id: "pulse",
      phase_school: "growth",
      interval_by: "learnt",
      trial: "",
    })
  })
  it("takes a weight as typed, with what it is", async () => {
    const sent = serve({ "POST /api/pots/3/weights": { status: 201, body: { id: 1 } } })
    show(<WeightForm potId={3} today="2026-11-23" onClose={nothing} />)
    typed("Weight, g", "812,5")
    typed("It is", "drained")
    fireEvent.click(screen.getByRole("button", { name: "Save the weight" }))
    await waitFor(() =>
      expect(sent.map((s) => s.body)).toEqual([
        { on: "2026-11-23", grams: "812,5", kind: "drained" },
      ]),
    )
  })
  it("shows a place's seasons as they are and leaves unknown figures empty", async () => {
    const sent = serve({
      "GET /api/places": {
        body: [
          {
            id: 2,
            name: "Signal room",
            hemisphere: "south",
            latitude_deg: null,
            lamp_hours: 14,
            lamp_dli: null,
            lamps_off: "21:00",
          },
        ],
      },
      "POST /api/places/2": { body: { id: 2 } },
    })
    show(<PlaceForm placeId={2} onClose={nothing} />)
    expect(await screen.findByText("Seasons of Signal room")).toBeTruthy()
    typed("Latitude, °", "-35")
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toEqual({
        hemisphere: "south",
        latitude_deg: "-35",
        lamp_hours: "14",
        lamp_dli: "",
        lamps_off: "21:00",
      }),
    )
  })
})
