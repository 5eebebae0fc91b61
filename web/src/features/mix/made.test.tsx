import { act, fireEvent, renderHook, screen, waitFor } from "@testing-library/react"
import { describe, expect, it, vi } from "vitest"
import type { Schemas } from "../../api/client"
import { serve, show, WORKING } from "../../testing/harness.test"
import { KeepRecipe } from "./KeepRecipe"
import { LastCans } from "./LastCans"
import { MadeCan } from "./MadeCan"
import { Rescue } from "./Rescue"
import { asked, BASE, computed, DRAFT, PAGE, refused, type } from "./samples.test"
import { useThrottled } from "./usePreview"

const BATCH: Schemas["BatchOut"] = {
  id: 7,
  made_on: "2026-11-23",
  age_days: 0,
  name: "Nitrate feed, 40 mg/L N",
  volume_L: 2,
  left_L: 1.5,
  dose_g_L: 0.308,
  nitrogen_mg_L: 40,
  predicted_uS_cm: 406,
  predicted_low_uS_cm: 385,
  predicted_high_uS_cm: 427,
  measured_uS_cm: null,
  measured_by: "",
  verdict: "",
  verdict_sentence: "",
  route: "root",
  recipe: "Nitrate feed, nitrogen",
  recipe_version: 2,
}
const WAY: Schemas["Rescue"] = {
  act: "add water",
  now_g_L: 0.9,
  water_L: 3.8,
  feed_amount: 0,
  feed_rounded: 0,
  feed_unit: "g",
  discard_L: 0,
  final_L: 5.8,
  final_g_L: 0.308,
  final_uS_cm: 406,
  sentence: "Add 3.8 L of the same water. It then holds 5.8 L and should read 406 µS/cm.",
}

describe("a can that was made", () => {
  it("is judged by its reading, and rescued when it reads wrong", async () => {
    const judged: Schemas["Judged"] = {
      batch: {
        ...BATCH,
        measured_uS_cm: 1100,
        verdict: "check",
        verdict_sentence: "694 µS/cm stronger than expected.",
      },
      check: {
        verdict: "check",
        sentence: "694 µS/cm stronger than expected.",
        difference_uS_cm: 694,
        tolerance_uS_cm: 60,
        rescue_water_L: 3.7,
        final_volume_L: 5.7,
      },
      working: WORKING,
    }
    const sent = serve({
      ...BASE,
      "GET /api/meters": {
        body: {
          meters: [{ id: 3, name: "Pen 1", unit: "mS/cm", scale: null, compensation: "linear" }],
        },
      },
      "POST /api/batches/7/reading": { status: 201, body: judged },
      "POST /api/batches/7/rescue": computed(WAY),
    })
    show(<MadeCan made={BATCH} potIds={[]} page={PAGE} onBack={() => undefined} />)
    screen.getByText(/Nitrate feed, nitrogen, version 2\. Expect 385 to 427/)
    expect(screen.queryByText("Save it, or use what is left")).toBeNull()
    await screen.findByRole("option", { name: "Pen 1" })
    fireEvent.change(screen.getByLabelText("Meter"), { target: { value: "3" } })
    expect(screen.queryByLabelText("Unit")).toBeNull()
    type("Measured EC", "1100")
    fireEvent.click(screen.getByRole("button", { name: "Judge it" }))
    await screen.findByText(WAY.sentence)
    expect(asked(sent, "/api/batches/7/reading")).toMatchObject({
      meter_id: 3,
      unit: "mS/cm",
      value: "1100",
    })
    expect(asked(sent, "/api/batches/7/rescue")).toMatchObject({
      reading: "1100",
      left: "1.5",
      stood: false,
    })
    expect(screen.getAllByText(/694 µS\/cm stronger/)).toHaveLength(1)
  })
  it("that stood is taken as concentrated, not as wrong", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/batches/7/rescue": refused("Reading 0 µS/cm cannot be.", "/reading"),
    })
    show(<Rescue batch={{ ...BATCH, age_days: 5 }} reading={null} />)
    expect(
      (screen.getByLabelText("It was right when made and has only stood") as HTMLInputElement)
        .checked,
    ).toBe(true)
    expect(sent.filter((s) => s.method === "POST")).toHaveLength(0)
    type("It reads now, µS/cm", "0")
    await screen.findByText("Reading 0 µS/cm cannot be.")
    expect(asked(sent)).toMatchObject({ stood: true })
  })
  it("stands in the log with its version, its meter and what is left", () => {
    let opened = 0
    const { container } = show(
      <LastCans
        page={{
          ...PAGE,
          batches: [
            { ...BATCH, measured_uS_cm: 400, measured_by: "Pen 1", verdict: "fine" },
            { ...BATCH, id: 8, age_days: 3, route: "leaf" },
          ],
        }}
        onOpen={(b) => {
          opened = b.id
        }}
      />,
    )
    expect(container.textContent).toContain("version 2")
    expect(container.textContent).toContain("Pen 1")
    expect(container.textContent).toContain("1.5 of 2 L")
    expect(container.textContent).toContain("3 days ago")
    expect(container.textContent).toContain("· leaf")
    expect(container.textContent).toContain("not measured")
    fireEvent.click(
      screen.getAllByRole("button", { name: "Pour from it", hidden: true })[1] as HTMLElement,
    )
    expect(opened).toBe(8)
  })
})

describe("a recipe", () => {
  it("is kept under its name, and a refusal stays at the field", async () => {
    let name = ""
    const sent = serve({
      ...BASE,
      "POST /api/recipes": (s) =>
        (s.body as { name: string }).name
          ? { status: 201, body: { id: 3 } }
          : refused("Name is empty. Name the recipe.", "/name"),
    })
    show(
      <KeepRecipe
        draft={{ ...DRAFT, also: [{ product_id: 3, dose: "0.1" }] }}
        onKept={(n) => {
          name = n
        }}
        onCancel={() => undefined}
      />,
    )
    fireEvent.click(screen.getByRole("button", { name: "Save the recipe" }))
    await screen.findByText("Name is empty. Name the recipe.")
    type("Name of the recipe", "Thin")
    fireEvent.click(screen.getByRole("button", { name: "Save the recipe" }))
    await waitFor(() => expect(name).toBe("Thin"))
    expect(asked(sent)).toMatchObject({
      name: "Thin",
      product_id: 1,
      also: [{ product_id: 3, dose: "0.1" }],
    })
  })
})

describe("while a value is dragged", () => {
  it("follows at most once in a while and ends at the last value", () => {
    vi.useFakeTimers()
    const seen: number[] = []
    const { rerender } = renderHook(
      ({ v }) => {
        const t = useThrottled(v, 80)
        if (seen.at(-1) !== t) seen.push(t)
      },
      { initialProps: { v: 0 } },
    )
    for (let v = 1; v <= 40; v += 1) {
      rerender({ v })
      act(() => {
        vi.advanceTimersByTime(10)
      })
    }
    act(() => {
      vi.advanceTimersByTime(200)
    })
    expect(seen.at(-1)).toBe(40)
    expect(seen.length).toBeLessThan(12)
    vi.useRealTimers()
  })
})
