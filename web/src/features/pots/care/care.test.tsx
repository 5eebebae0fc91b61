import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../../api/client"
import { serve, show } from "../../../testing/harness.test"
import { RuleForm } from "../../../ui/RuleForm"
import { CareForm } from "./CareForm"
import { ChangeHere } from "./ChangeHere"
import { DecideForm } from "./DecideForm"
import { FeltForm } from "./FeltForm"
import { Holds } from "./Holds"
import { PlaceForm } from "./PlaceForm"
import { ReadyForm } from "./ReadyForm"
import { TreatedForm } from "./TreatedForm"
import { WeightForm } from "./WeightForm"

type Hold = Schemas["PotRow"]["holds"][number]
const RESTING: Hold = { id: "resting", blocks: ["feed", "flush"], reason: "Resting since 30 Oct: no feed.", release: "Until a new lead shows.", standing: false, word: "" }
const ROOTS: Hold = { id: "carnivore roots", blocks: ["feed"], reason: "A carnivore.", release: "By choice only.", standing: true, word: "" }
const nothing = () => undefined
const typed = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } })

describe("holds", () => {
  it("tell what they block, why and until when; a rule of the kind is not to be set aside", () => {
    const { container } = show(<Holds potId={3} holds={[RESTING, ROOTS]} />)
    expect(container.textContent).toContain("Hold: Resting since 30 Oct: no feed. Blocks feed, flush. Ends: Until a new lead shows.")
    expect(screen.getAllByRole("button").map((b) => b.getAttribute("aria-label"))).toEqual(["Set aside the hold resting"])
  })
  it("are set aside with a word that is sent once, with its key", async () => {
    const sent = serve({ "POST /api/pots/3/override": { status: 201, body: { id: 7 } } })
    show(<Holds potId={3} holds={[RESTING]} />)
    fireEvent.click(screen.getByRole("button", { name: "Set aside the hold resting" }))
    typed("Why, in a word", "a warm week")
    fireEvent.click(screen.getByRole("button", { name: "Set it aside" }))
    await waitFor(() => expect(screen.queryByRole("button", { name: "Set it aside" })).toBeNull())
    expect(sent.filter((s) => s.method === "POST").map((s) => s.body)).toEqual([{ hold_id: "resting", word: "a warm week" }])
    expect(sent[0]?.key).toBeTruthy()
  })
  it("show the server's sentence beside the field when the word is missing", async () => {
    serve({ "POST /api/pots/3/override": { status: 422, body: { title: "", status: 422, detail: "A word is missing.", errors: [{ pointer: "/word", detail: "A word is missing." }] } } })
    show(<Holds potId={3} holds={[RESTING]} />)
    fireEvent.click(screen.getByRole("button", { name: "Set aside the hold resting" }))
    fireEvent.click(screen.getByRole("button", { name: "Set it aside" }))
    expect((await screen.findAllByText("A word is missing.")).length).toBeGreaterThan(0)
  })
  it("already set aside show the word and offer nothing", () => {
    const { container } = show(<Holds potId={3} holds={[{ ...RESTING, word: "a warm week" }]} />)
    expect(container.textContent).toContain("Set aside: Resting since 30 Oct: no feed. Your word: a warm week")
    expect(screen.queryByRole("button")).toBeNull()
  })
})

describe("what rules a pot", () => {
  it("sends school, phase and interval as chosen", async () => {
    const sent = serve({ "POST /api/pots/3/care": { body: { id: 3 } }, "GET /api/mix": { body: { schools: [{ school: { id: "pulse", name: "Pulse" }, edited: false, copy_id: null }] } } })
    let closed = false
    show(<CareForm potId={3} care={{ school_id: null, phase_school: "noted", interval_by: "set", trial: "" } as Schemas["CarePage"]} onClose={() => { closed = true }} />)
    await screen.findByRole("option", { name: "Pulse" })
    typed("Feeding school", "pulse")
    typed("Phase told", "growth")
    typed("Days between", "learnt")
    fireEvent.click(screen.getByRole("button", { name: "Keep it" }))
    await waitFor(() => expect(closed).toBe(true))
    expect(sent.find((s) => s.method === "POST")?.body).toEqual({ school_id: "pulse", phase_school: "growth", interval_by: "learnt", trial: "" })
  })
  it("takes a weight as typed, with what it is", async () => {
    const sent = serve({ "POST /api/pots/3/weights": { status: 201, body: { id: 1 } } })
    show(<WeightForm potId={3} today="2026-11-23" onClose={nothing} />)
    typed("Weight, g", "812,5")
    typed("It is", "drained")
    fireEvent.click(screen.getByRole("button", { name: "Keep the weight" }))
    await waitFor(() => expect(sent.map((s) => s.body)).toEqual([{ on: "2026-11-23", grams: "812,5", kind: "drained" }]))
  })
  it("shows a place's seasons as they are and leaves unknown figures empty", async () => {
    const sent = serve({ "GET /api/places": { body: [{ id: 2, name: "Signal room", hemisphere: "south", latitude_deg: null, lamp_hours: 14, lamp_dli: null }] }, "POST /api/places/2": { body: { id: 2 } } })
    show(<PlaceForm placeId={2} onClose={nothing} />)
    expect(await screen.findByText("Seasons of Signal room")).toBeTruthy()
    typed("Latitude, °", "-35")
    fireEvent.click(screen.getByRole("button", { name: "Keep it" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toEqual({ hemisphere: "south", latitude_deg: "-35", lamp_hours: "14", lamp_dli: "" }))
  })
})

const CARE = { ready_by: "days", ready_at: null, probe_id: null } as unknown as Schemas["CarePage"]
const PROBES = { "GET /api/probes": { body: [{ id: 4, name: "long probe", lowest: 0, highest: 200, dry_end: "high" }] } }

describe("ready for water", () => {
  it("asks for what a rule needs and nothing else, and names the dry end of the probe", async () => {
    const sent = serve({ ...PROBES, "POST /api/pots/3/ready": { body: { id: 3 } } })
    show(<ReadyForm potId={3} care={CARE} onClose={nothing} />)
    await screen.findByLabelText("Ready")
    expect(screen.queryByLabelText(/^Water it/)).toBeNull()
    typed("Ready", "weight")
    expect(screen.getByLabelText("Water it at, % of its water left")).toBeTruthy()
    typed("Ready", "probe")
    await screen.findByRole("option", { name: "long probe, 0 to 200" })
    typed("Probe", "4")
    expect(screen.getByText("On its own scale, 200 is dry.")).toBeTruthy()
    typed("Water it at", "150")
    fireEvent.click(screen.getByRole("button", { name: "Keep the rule" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toEqual({ ready_by: "probe", at: "150", moist: "barely damp", probe_id: 4 }))
  })
  it("shows a rule as it was set", async () => {
    serve(PROBES)
    show(<ReadyForm potId={3} care={{ ...CARE, ready_by: "weight", ready_at: 0.25 }} onClose={nothing} />)
    expect(await screen.findByDisplayValue("25")).toBeTruthy()
    typed("Ready", "probe")
    fireEvent.click(await screen.findByRole("button", { name: "Another probe" }))
    expect(screen.getByLabelText("Scale from")).toBeTruthy()
  })
  it("keeps what was found and leaves open what was not looked at", async () => {
    const sent = serve({ ...PROBES, "POST /api/pots/3/felt": { status: 201, body: { id: 9 } } })
    show(<FeltForm potId={3} care={CARE} today="2026-11-23" onClose={nothing} />)
    await screen.findByLabelText("To the finger")
    typed("To the finger", "barely damp")
    typed("Leaves", "no")
    fireEvent.click(screen.getByRole("button", { name: "Keep it" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toEqual({ on: "2026-11-23", probe_id: null, probe_value: null, moist: "barely damp", roots: null, droops: false }))
  })
})

describe("a place", () => {
  it("keeps what changed there with its day", async () => {
    const sent = serve({ "POST /api/places/2/changes": { status: 201, body: { id: 5 } } })
    show(<ChangeHere placeId={2} place="Signal room" today="2026-11-23" onClose={nothing} />)
    typed("What", "humidifier off")
    fireEvent.click(screen.getByRole("button", { name: "Keep it" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toEqual({ on: "2026-11-23", kind: "humidifier off", note: "" }))
  })
  it("has a rule that opens as it stands", async () => {
    const sent = serve({
      "GET /api/rules": { body: [{ id: 1, scope: "place", key: "2", school_id: "", phase_school: "lamps" }, { id: 2, scope: "kind", key: "2", school_id: "pulse", phase_school: "" }] },
      "GET /api/mix": { body: { schools: [{ school: { id: "pulse", name: "Pulse" }, edited: false, copy_id: null }] } }, "POST /api/rules": { status: 201, body: { id: 3 } },
    })
    show(<RuleForm scope="place" ruleKey="2" of="Signal room" onClose={nothing} />)
    await screen.findByText("Rule for all of Signal room")
    typed("Feeding school", "pulse")
    fireEvent.click(screen.getByRole("button", { name: "Keep the rule" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toEqual({ scope: "place", key: "2", school_id: "pulse", phase_school: "lamps" }))
  })
})

describe("what is decided", () => {
  it("proposes the day by which the kind has answered, tells what was decided before, and keeps why", async () => {
    const sent = serve({
      "GET /api/pots/3/decisions": { body: { decisions: [{ id: 1, on: "2026-10-02", what: "half the feed", why: "", look_again_on: "2026-10-30" }], look_again_on: "2026-12-21", salt_days: [10, 28], hunger_days: [50, 120], first_sign: "the next leaf" } },
      "POST /api/pots/3/decisions": { status: 201, body: { id: 2 } },
    })
    const { container } = show(<DecideForm potId={3} today="2026-11-23" onClose={nothing} />)
    await screen.findByText("What is decided")
    expect(container.textContent).toContain("Before: 2 Oct, half the feed (look again 30 Oct).")
    expect(container.textContent).toContain("answers salt in 10 to 28 days, hunger in 50 to 120")
    typed("Decided", "nothing yet")
    fireEvent.click(screen.getByRole("button", { name: "Keep the decision" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toEqual({ what: "nothing yet", why: "", on: "2026-11-23", look_again_on: "2026-12-21" }))
  })
  it("lets leaf sprays wait for as long as the label of a treatment asks", async () => {
    const sent = serve({ "POST /api/pots/3/treated": { status: 201, body: { id: 2 } } })
    show(<TreatedForm potId={3} today="2026-11-23" onClose={nothing} />)
    typed("Its label asks to wait, days", "7")
    fireEvent.click(screen.getByRole("button", { name: "Keep it" }))
    await waitFor(() => expect(sent.find((s) => s.method === "POST")?.body).toEqual({ on: "2026-11-23", days: "7", note: "" }))
  })
})
