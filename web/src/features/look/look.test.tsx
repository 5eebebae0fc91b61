import { fireEvent, screen, waitFor, within } from "@testing-library/react"
import { beforeEach, describe, expect, it } from "vitest"
import { kept } from "../../api/outbox"
import { serve, SETTINGS, show } from "../../testing/harness.test"
import { bareMark, bodyOf, emptyDraft, organOf, withMark, withOrgan } from "./draft"
import { LookSheet } from "./LookSheet"
import type { Asked } from "./queries"
import { Screen } from "./Screen"

const on = (kind: string, label: string, place: "leaf" | "plant" | "pot", felt = false) => ({
  kind: kind as "tip",
  label,
  on: place,
  felt,
})

const asked = (code = "P-06", more: Partial<Asked> = {}): Asked => ({
  pot_id: Number(code.slice(-2)),
  plant_id: 60,
  plants: [{ id: 60, label: "Phragmipedium" }],
  code,
  name: "the big clump",
  kind: "Phragmipedium",
  today: "2026-11-23",
  last_on: "2026-11-07",
  leaves_count: 17,
  marks: [],
  leaves: [
    { id: 8, number: 8, opened_on: "2026-11-07", mm: 112, growing: true, lost: false },
    { id: 7, number: 7, opened_on: "2026-09-20", mm: 159, growing: false, lost: false },
  ],
  newest_is_finished: false,
  usual_mm: 160,
  ghost_number: 7,
  ghost_mm: 118,
  new_ghost_mm: 20,
  organs: [
    {
      organ: "root tips",
      label: "Root tips",
      figures: [
        { figure: "count", label: "live tips", unit: "" },
        { figure: "of", label: "tips seen", unit: "" },
      ],
      words: { wet: ["green", "grey"] },
      last: { organ: "root tips", told: "seen", count: 4, of: 6, words: {} },
    },
  ],
  mark_choices: [
    on("tip", "brown tip", "leaf", true),
    on("spot", "spots", "leaf", true),
    on("pale", "pale all over", "leaf"),
    on("crust", "white salt crust", "pot"),
    on("limp", "limp leaves", "plant"),
  ],
  zones: [
    { place: "tip", label: "Tip", kind: "tip" },
    { place: "blade", label: "Blade", kind: "spot" },
  ],
  surfaces: ["", "dry", "moist"],
  photo_id: null,
  ...more,
})

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }))
const LOOK = "POST /api/pots/6/looks"
const stored = { body: { id: 5, on: "2026-11-23", marks: [], unknown: [], note: "" } }

beforeEach(async () => {
  const db = await kept()
  await Promise.all([db.clear("entries"), db.clear("answers"), db.clear("walks")])
})

describe("a look", () => {
  it("is as last time with one new leaf in three presses, and leaves open what nobody saw", async () => {
    const sent = serve({ ...SETTINGS, [LOOK]: stored })
    let done = 0
    show(<LookSheet asked={asked()} next={asked("A-05")} onDone={() => (done += 1)} />)
    press("Same as last time")
    press("New leaf")
    press("Save, next A-05")
    await waitFor(() => expect(done).toBe(1))
    expect(sent.find((s) => s.path.endsWith("/looks"))?.body).toMatchObject({
      as_last: true,
      new_leaf: true,
      newest_leaf: "",
      leaf_growing: true,
      leaves_count: "",
      marks: [],
      marks_looked_for: false,
      organs: [],
      posture: "",
    })
    expect(screen.getByText("P-06: look saved.")).toBeTruthy()
  })

  it("measures by keys on the drawn tip and says how long the leaf before was", () => {
    show(<LookSheet asked={asked()} onDone={() => undefined} />)
    const knob = screen.getByRole("slider", { name: "Length of the newest leaf" })
    expect(knob.getAttribute("aria-valuetext")).toBe("not measured")
    fireEvent.keyDown(knob, { key: "ArrowUp" })
    expect(knob.getAttribute("aria-valuetext")).toBe("113 mm")
    fireEvent.keyDown(knob, { key: "PageDown" })
    expect(screen.getByLabelText<HTMLInputElement>("Newest leaf, mm").value).toBe("103")
    expect(screen.getByText("Leaf 7 was 118 mm at this age.")).toBeTruthy()
  })

  it("asks how a brown mark feels, of no other", async () => {
    const sent = serve({ ...SETTINGS, [LOOK]: stored })
    show(<LookSheet asked={asked()} onDone={() => undefined} />)
    press("Mark: Tip")
    const tip = screen.getByRole("group", { name: "Tip" })
    fireEvent.click(within(tip).getByRole("button", { name: "Soft" }))
    fireEvent.change(within(tip).getByLabelText("Size of the mark in mm, Tip"), {
      target: { value: "4" },
    })
    press("white salt crust")
    press("Save")
    await waitFor(() => expect(sent.some((s) => s.path.endsWith("/looks"))).toBe(true))
    const body = sent.find((s) => s.path.endsWith("/looks"))?.body as { marks: object[] }
    expect(body.marks).toMatchObject([
      { kind: "tip", place: "tip", texture: "soft", mm: "4", leaf_id: 8, old: false },
      { kind: "crust", place: "unknown", texture: "" },
    ])
    fireEvent.change(within(tip).getByLabelText("Kind of mark, Tip"), { target: { value: "pale" } })
    expect(within(tip).queryByRole("button", { name: "Soft" })).toBeNull()
  })

  it("tells none seen, cannot tell and not looked for apart", async () => {
    const sent = serve({ ...SETTINGS, [LOOK]: stored })
    show(<LookSheet asked={asked()} onDone={() => undefined} />)
    press("Cannot tell")
    fireEvent.change(screen.getByLabelText("Root tips: looked at?"), {
      target: { value: "none seen" },
    })
    press("Save")
    await waitFor(() => expect(sent.some((s) => s.path.endsWith("/looks"))).toBe(true))
    expect(sent.find((s) => s.path.endsWith("/looks"))?.body).toMatchObject({
      marks_looked_for: false,
      unknown: ["marks"],
      organs: [{ organ: "root tips", told: "none seen" }],
    })
    expect(screen.getByText("last: 4 live tips, 6 tips seen", { exact: false })).toBeTruthy()
  })

  it("puts a refusal beside its field, opens what is folded for it, and keeps what was typed", async () => {
    const sentence = "Leaves counted 5.5 is not a whole number. Count whole leaves."
    const errors = [{ pointer: "/leaves_count", detail: sentence }]
    serve({ ...SETTINGS, [LOOK]: { status: 422, body: { detail: sentence, status: 422, errors } } })
    show(<LookSheet asked={asked()} onDone={() => undefined} />)
    fireEvent.change(screen.getByLabelText("Newest leaf, mm"), { target: { value: "120" } })
    press("Save")
    expect(await screen.findByText(sentence)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>("Newest leaf, mm").value).toBe("120")
    expect(screen.getByLabelText("Leaves counted")).toBeTruthy()
  })

  it("goes through the unseen ones in their order", async () => {
    serve({
      ...SETTINGS,
      "GET /api/looks-asked": {
        body: { today: "2026-11-23", due: 2, looks: [asked(), asked("A-05", { last_on: null })] },
      },
    })
    show(<Screen />, "/look")
    expect(await screen.findByRole("button", { name: "Save, next A-05" })).toBeTruthy()
    expect(screen.getByText("Last look 7 Nov.")).toBeTruthy()
  })

  it("offers no “same as last time” where there was none", () => {
    show(
      <LookSheet asked={asked("P-06", { last_on: null, leaves: [] })} onDone={() => undefined} />,
    )
    expect(screen.queryByRole("button", { name: "Same as last time" })).toBeNull()
    expect(screen.getByText("First look: nothing to compare yet.")).toBeTruthy()
    expect(screen.getByText("No leaf yet")).toBeTruthy()
  })
})

describe("a draft", () => {
  const draft = emptyDraft(asked())
  it("holds one answer an organ, and marks in their places", () => {
    const once = withOrgan(withOrgan(draft, { ...organOf(draft, "dew"), percent: "80" }), {
      ...organOf(draft, "dew"),
      percent: "60",
    })
    expect(once.organs.map((o) => o.percent)).toEqual(["60"])
    const two = withMark(withMark(draft, bareMark("tip")), bareMark("spot"))
    expect(withMark(two, bareMark("pale"), 0).marks.map((m) => m.kind)).toEqual(["pale", "spot"])
    expect(two.told).toBe("seen")
  })
  it("sends roots as numbers apart and an empty day as none", () => {
    const body = bodyOf({ ...draft, all_roots: "4 5.5; 6", roots: "no", growing: "" })
    expect(body.roots).toEqual(["4", "5.5", "6"])
    expect([body.roots_working, body.leaf_growing, body.opened_on]).toEqual([false, null, null])
  })
})
