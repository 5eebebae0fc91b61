import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../../api/client"
import { serve, show, SETTINGS } from "../../../testing/harness.test"
import { RuleForm } from "../../../ui/RuleForm"
import { ChangeHere } from "./ChangeHere"
import { DecideForm } from "./DecideForm"
import { FeltForm } from "./FeltForm"
import { ReadyForm } from "./ReadyForm"
import { TreatedForm } from "./TreatedForm"

const nothing = () => undefined
const typed = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
const CARE = {
  ready_by: "days",
  ready_at: null,
  ready_moist: "barely damp",
  probe_id: null,
} as unknown as Schemas["CarePage"]
const PROBES = {
  "GET /api/probes": {
    body: [{ id: 4, name: "long probe", lowest: 0, highest: 200, dry_end: "high" }],
  },
}

describe("ready for water", () => {
  it("asks for what a rule needs and nothing else, and names the dry end of the probe", async () => {
    const sent = serve({ ...SETTINGS, ...PROBES, "POST /api/pots/3/ready": { body: { id: 3 } } })
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
    fireEvent.click(screen.getByRole("button", { name: "Save the rule" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toEqual({
        ready_by: "probe",
        at: "150",
        moist: "barely damp",
        probe_id: 4,
        signs: [],
        least: 2,
      }),
    )
  })
  it("shows a rule as it was set", async () => {
    serve(PROBES)
    show(
      <ReadyForm
        potId={3}
        care={{ ...CARE, ready_by: "weight", ready_at: 0.25 }}
        onClose={nothing}
      />,
    )
    expect(await screen.findByDisplayValue("25")).toBeTruthy()
    typed("Ready", "probe")
    fireEvent.click(await screen.findByRole("button", { name: "Another probe" }))
    expect(screen.getByLabelText("Scale from")).toBeTruthy()
  })
  it("keeps what was found and leaves open what was not looked at", async () => {
    const sent = serve({
      ...SETTINGS,
      ...PROBES,
      "POST /api/pots/3/felt": { status: 201, body: { id: 9 } },
    })
    show(<FeltForm potId={3} care={CARE} today="2026-11-23" onClose={nothing} />)
    await screen.findByRole("option", { name: "barely damp" })
    typed("To the finger", "barely damp")
    typed("Leaves", "no")
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toEqual({
        on: "2026-11-23",
        probe_id: null,
        probe_value: null,
        moist: "barely damp",
        roots: null,
        droops: false,
        wall: null,
        heft: null,
      }),
    )
  })
})

describe("a place", () => {
  it("keeps what changed there with its day", async () => {
    const sent = serve({
      ...SETTINGS,
      "POST /api/places/2/changes": { status: 201, body: { id: 5 } },
    })
    show(<ChangeHere placeId={2} place="Signal room" today="2026-11-23" onClose={nothing} />)
    await screen.findByRole("option", { name: "lamps changed" })
    typed("What", "lamps changed")
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toEqual({
        on: "2026-11-23",
        kind: "lamps changed",
        note: "",
      }),
    )
  })
  it("has a rule that opens as it stands", async () => {
    const sent = serve({
      "GET /api/rules": {
        body: [
          { id: 1, scope: "place", key: "2", school_id: "", phase_school: "lamps" },
          { id: 2, scope: "kind", key: "2", school_id: "pulse", phase_school: "" },
        ],
      },
      "GET /api/mix": {
        body: {
          schools: [{ school: { id: "pulse", name: "Pulse" }, edited: false, copy_id: null }],
        },
      },
      "POST /api/rules": { status: 201, body: { id: 3 } },
    })
    show(<RuleForm scope="place" ruleKey="2" of="Signal room" onClose={nothing} />)
    await screen.findByText("Rule for all of Signal room")
    typed("Feeding school", "pulse")
    fireEvent.click(screen.getByRole("button", { name: "Save the rule" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toEqual({
        scope: "place",
        key: "2",
        school_id: "pulse",
        phase_school: "lamps",
      }),
    )
  })
})

describe("what is decided", () => {
  it("proposes the day by which the kind has answered, tells what was decided before, and keeps why", async () => {
    const sent = serve({
      "GET /api/pots/3/decisions": {
        body: {
          decisions: [
            {
              id: 1,
              on: "2026-10-02",
              what: "half the feed",
              why: "",
              look_again_on: "2026-10-30",
            },
          ],
          look_again_on: "2026-12-21",
          salt_days: [10, 28],
          hunger_days: [50, 120],
          first_sign: "the next leaf",
        },
      },
      "POST /api/pots/3/decisions": { status: 201, body: { id: 2 } },
    })
    const { container } = show(<DecideForm potId={3} today="2026-11-23" onClose={nothing} />)
    await screen.findByText("What is decided")
    expect(container.textContent).toContain("Before: 2 Oct, half the feed (look again 30 Oct).")
    expect(container.textContent).toContain("answers salt in 10 to 28 days, hunger in 50 to 120")
    typed("Decided", "nothing yet")
    fireEvent.click(screen.getByRole("button", { name: "Save the decision" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toEqual({
        what: "nothing yet",
        why: "",
        on: "2026-11-23",
        look_again_on: "2026-12-21",
      }),
    )
  })
  it("lets leaf sprays wait for as long as the label of a treatment asks", async () => {
    const sent = serve({ "POST /api/pots/3/treated": { status: 201, body: { id: 2 } } })
    show(<TreatedForm potId={3} today="2026-11-23" onClose={nothing} />)
    typed("Its label asks to wait, days", "7")
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toEqual({
        on: "2026-11-23",
        days: "7",
        note: "",
      }),
    )
  })
})
