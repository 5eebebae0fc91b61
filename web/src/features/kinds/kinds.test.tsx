import { fireEvent, screen, waitFor } from "@testing-library/react"
import { useState } from "react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { elsewhere, serve, show } from "../../testing/harness.test"
import type { KindData } from "./loadKind"
import { OwnFigures } from "./OwnFigures"
import { Screen } from "./Screen"

const kind = (
  id: string,
  name: string,
  part: Partial<Schemas["KindRow"]> = {},
): Schemas["KindRow"] => ({
  id,
  name,
  group: "orchid",
  confidence: "medium",
  source: "",
  rest: "none",
  water_max_uS_cm: 150,
  pots: 0,
  own: false,
  ...part,
})
const DISA = {
  profile: {
    id: "disa",
    carnivore: false,
    source_water: { ec_max_uS_cm: 80, alkalinity_ceiling_mg_L: 30 },
    root_zone: { ec_ideal_uS_cm: [60, 180], ec_ceiling_uS_cm: 250 },
    climate: { minimum_C: 8 },
    flush: { cadence_days: [14, 28] },
    rest: { kind: "none" },
    phases: { active: { feed: true, n_ideal_mg_L: [5, 20], ec_ceiling_uS_cm: 230 } },
  },
  limits: { water_max: 80, minimum_C: 8 },
} as unknown as KindData
const NONE = {
  water_max: "",
  alkalinity_max: "",
  reading_low: "",
  reading_high: "",
  reading_ceiling: "",
  nitrogen_low: "",
  nitrogen_high: "",
  feed_ceiling: "",
  minimum_C: "",
  flush_each_days: "",
  gate_root_cm: "",
  gate_roots: "",
  gate_growth_cm: "",
  word: "",
  plant_id: null,
}

describe("kinds", () => {
  it("stand by group with their limit, how sure it is, and how many are here", async () => {
    serve({
      "GET /api/kinds": {
        body: [
          kind("disa", "Disa", { own: true, pots: 2 }),
          kind("sarracenia", "Sarracenia", { group: "carnivore", confidence: "high" }),
        ],
      },
    })
    const { container } = show(<Screen />)
    await screen.findByText("Disa")
    expect(screen.getAllByRole("heading", { level: 2 }).map((h) => h.textContent)).toEqual([
      "Orchid",
      "Carnivore",
    ])
    expect(container.textContent).toContain(
      "Water up to 150 µS/cm · confidence medium · your figures · 2 here",
    )
    fireEvent.change(screen.getByLabelText("Find a kind"), { target: { value: "carn" } })
    expect(screen.queryByText("Disa")).toBeNull()
  })
  it("take own figures as typed and leave the rest empty", async () => {
    const sent = serve({ "POST /api/kinds/disa/own": { status: 201, body: { id: 1 } } })
    let closed = false
    show(
      <OwnFigures
        page={DISA}
        onClose={() => {
          closed = true
        }}
      />,
    )
    expect(screen.getByText("now 250")).toBeTruthy()
    fireEvent.change(screen.getByLabelText("Water, at most, µS/cm"), { target: { value: "60" } })
    fireEvent.click(screen.getByRole("button", { name: "Save the figures" }))
    await waitFor(() => expect(closed).toBe(true))
    expect(sent[0]?.body).toEqual({ ...NONE, water_max: "60", seen: DISA.limits })
  })
  it("tell beside the field what another made of it meanwhile, and are stored when sent again", async () => {
    const sent = serve({
      "POST /api/kinds/disa/own": elsewhere("water_max", "It is 70 µS/cm now.", { water_max: 70 }),
    })
    let closed = false
    show(<OwnFigures page={DISA} plantId={4} onClose={() => (closed = true)} />)
    const most = screen.getByLabelText("Water, at most, µS/cm")
    fireEvent.change(most, { target: { value: "60" } })
    fireEvent.click(screen.getByRole("button", { name: "Save the figures" }))
    expect(await screen.findByText("It is 70 µS/cm now.")).toBeTruthy()
    expect((most as HTMLInputElement).value).toBe("60")
    fireEvent.click(screen.getByRole("button", { name: "Save the figures" }))
    await waitFor(() => expect(closed).toBe(true))
    expect(sent[1]?.body).toMatchObject({ plant_id: 4, seen: { water_max: 70, minimum_C: 8 } })
  })
  it("say what they were opened on, though the page beside them was asked for anew meanwhile", async () => {
    const sent = serve({ "POST /api/kinds/disa/own": { status: 201, body: { id: 1 } } })
    function Beside() {
      const [page, setPage] = useState(DISA)
      const other = { ...DISA, limits: { ...DISA.limits, water_max: 70 } } as KindData
      return (
        <>
          <button onClick={() => setPage(other)}>another saved</button>
          <OwnFigures page={page} onClose={() => undefined} />
        </>
      )
    }
    show(<Beside />)
    fireEvent.click(screen.getByText("another saved"))
    fireEvent.change(screen.getByLabelText("Water, at most, µS/cm"), { target: { value: "60" } })
    fireEvent.click(screen.getByRole("button", { name: "Save the figures" }))
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]?.body).toMatchObject({ water_max: "60", seen: { water_max: 80 } })
  })
  it("offer no feed of its own for a carnivore", () => {
    show(
      <OwnFigures
        page={{ profile: { ...DISA.profile, carnivore: true } } as KindData}
        onClose={() => undefined}
      />,
    )
    expect(screen.queryByLabelText(/^Feed/)).toBeNull()
    expect(screen.getByText("now 14 to 28")).toBeTruthy()
  })
})
