import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import { serve, SETTINGS, show, WORKING } from "../../testing/harness.test"
import { OnRuler } from "./OnRuler"
import type { Photo } from "./queries"
import { RateScreen } from "./RateScreen"
import { Tapped } from "./Tapped"
import { TimeRings } from "./TimeRings"

const photo = (id: number, on: string): Photo => ({
  id,
  pot_id: 6,
  plant_id: 6,
  look_id: null,
  on,
  width_px: 800,
  height_px: 600,
  bytes: 1000,
  scale: null,
  rim: null,
  note: "",
})
const photos = [photo(1, "2026-06-26"), photo(2, "2026-08-23"), photo(3, "2026-11-07")]

describe("two rings on a line of time", () => {
  it("go from photo to photo by keys and never past each other", () => {
    const moved: number[][] = []
    show(<TimeRings photos={photos} at={[0, 2]} happened={[]} onAt={(at) => moved.push(at)} />)
    const later = screen.getByRole("slider", { name: "Later photo" })
    expect(later.getAttribute("aria-valuetext")).toMatch(/^7 Nov/)
    fireEvent.keyDown(later, { key: "ArrowLeft" })
    fireEvent.keyDown(screen.getByRole("slider", { name: "Earlier photo" }), { key: "End" })
    fireEvent.keyDown(later, { key: "Home" })
    expect(moved).toEqual([
      [0, 1],
      [1, 2],
      [0, 1],
    ])
  })
})

describe("a photo that takes taps", () => {
  it("sets points with a cross by keys, in pixels of the photo, and takes the last one away", () => {
    const taps: { x: number; y: number }[] = []
    let back = 0
    show(
      <Tapped
        photo={photo(1, "2026-06-26")}
        mode="midrib"
        rim={[]}
        midrib={[]}
        outline={[]}
        grey={[]}
        onTap={(p) => taps.push(p)}
        onBack={() => (back += 1)}
      />,
    )
    const drawn = screen.getByRole("application")
    fireEvent.keyDown(drawn, { key: "Enter" })
    fireEvent.keyDown(drawn, { key: "Backspace" })
    expect(taps).toEqual([{ x: 400, y: 300 }])
    expect(back).toBe(1)
  })
})

describe("photos on one ruler", () => {
  it("lie by the core's own placing, one over the other or with the earlier lines dashed", () => {
    const laid = { a: 0.5, b: 0, c: 0, d: 0.5, e: -200, f: -150 }
    const compared = {
      before: photo(1, "2026-06-26"),
      after: photo(3, "2026-11-07"),
      pair: {
        result: { before: laid, after: laid, days: 134, turned_deg: 0, sentence: "" },
        working: WORKING,
      },
      before_frame: { left: -200, top: -150, right: 200, bottom: 150 },
      after_frame: { left: -200, top: -150, right: 200, bottom: 150 },
      before_traces: [
        {
          leaf: 7,
          closed: false,
          points: [
            { x: 0, y: 0 },
            { x: 0, y: -90 },
          ],
        },
      ],
      after_traces: [],
      between: { days: 134, happened: [], leaves: [], formed_after: 0, sentence: "" },
    }
    const { container, unmount } = show(<OnRuler compared={compared} way="over" fade={0.4} />)
    const pictures = [...container.querySelectorAll("image")]
    expect(pictures.map((p) => p.getAttribute("transform"))).toEqual([
      "matrix(0.5 0 0 0.5 -200 -150)",
      "matrix(0.5 0 0 0.5 -200 -150)",
    ])
    expect(pictures.map((p) => p.getAttribute("opacity"))).toEqual(["1", "0.4"])
    unmount()
    const lines = show(<OnRuler compared={compared} way="lines" fade={1} />).container
    expect(lines.querySelector("polyline")?.getAttribute("stroke-dasharray")).toBeTruthy()
    expect(lines.querySelectorAll("image")).toHaveLength(1)
  })
})

describe("rating", () => {
  it("names a number and neither plant nor day", async () => {
    const sent = serve({
      ...SETTINGS,
      "GET /api/photos-blind": { body: [{ number: 1, photo_id: 3, rated: 0 }] },
      "POST /api/photos/3/ratings": { body: { id: 9 } },
    })
    const { container } = show(<RateScreen />)
    fireEvent.click(await screen.findByRole("button", { name: "7" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toEqual({ score: 7, by: "" }),
    )
    expect(container.textContent).not.toMatch(/P-06|2026/)
  })
})
