import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import { serve, show } from "../../../testing/harness.test"
import type { Draft } from "../draft"
import { BASE, DRAFT, PAGE, WATERS } from "../samples.test"
import { FeedFields } from "./FeedFields"
import { WaterFields } from "./WaterFields"
import { WhatFor } from "./WhatFor"

/** Shows the part and gives the newest draft it asked for. */
function desk(draft: Partial<Draft> = {}, problems: Record<string, string> = {}) {
  serve(BASE)
  const seen: { draft: Draft } = { draft: { ...DRAFT, ...draft } }
  show(
    <WhatFor
      volumeUnit="L"
      page={PAGE}
      waters={WATERS}
      draft={seen.draft}
      onChange={(d) => {
        seen.draft = typeof d === "function" ? d(seen.draft) : d
      }}
      problems={problems}
    />,
  )
  return seen
}

describe("what the can is for", () => {
  it("fills the volume from the pots that are chosen, and says what is held", async () => {
    const seen = desk({ pot_ids: [3] })
    screen.getByText("D-09: Resting since 1 Nov.")
    fireEvent.click(screen.getByRole("button", { name: "M-04" }))
    expect(seen.draft.pot_ids).toEqual([3, 1])
    await waitFor(() => expect(seen.draft.volume).toBe("0.6"))
  })
  it("warns of a carnivore at the root, and not on the leaf", () => {
    desk({ pot_ids: [2] })
    screen.getByText("G-01: is not fed at the root. Choose the leaf as route.")
  })
  it("keeps the volume of a spray whatever pots are chosen", () => {
    const seen = desk({ route: "leaf", volume: "0.5" })
    fireEvent.click(screen.getByRole("button", { name: "G-01" }))
    expect(seen.draft).toMatchObject({ pot_ids: [2], volume: "0.5" })
  })
  it("takes a recipe as a whole; names of single cans are not offered", () => {
    const seen = desk()
    const recipe = screen.getByLabelText("Recipe")
    expect([...recipe.querySelectorAll("option")].map((o) => o.textContent)).toEqual([
      "none, free hand",
      "Mist, version 2",
    ])
    fireEvent.change(recipe, { target: { value: "Mist" } })
    expect(seen.draft).toMatchObject({
      recipe: "Mist",
      route: "leaf",
      value: "15",
      school_id: "mist",
      also: [{ product_id: 3, dose: "0.1" }],
    })
  })
  it("follows a school in strength and route, and tells both sides of it", () => {
    const seen = desk({ school_id: "mist" })
    screen.getByText(
      /About 3 mL a plant, before lights-out\. In favour: Even supply\. Against: Needs clean water\./,
    )
    fireEvent.change(screen.getByLabelText("School"), { target: { value: "thin" } })
    expect(seen.draft).toMatchObject({
      school_id: "thin",
      route: "root",
      strength: "nitrogen",
      value: "50",
    })
  })
  it("sets the volume by the vessel", () => {
    const seen = desk()
    fireEvent.click(screen.getByRole("button", { name: "Mist bottle" }))
    expect(seen.draft.volume).toBe("0.5")
  })
})

describe("what is in it", () => {
  const seen: { draft: Draft } = { draft: DRAFT }
  const keep = (d: Draft) => {
    seen.draft = d
  }
  it("adds a second product at its own dose, changes and leaves it out again", () => {
    serve(BASE)
    const { unmount } = show(<FeedFields page={PAGE} draft={DRAFT} onChange={keep} problems={{}} />)
    fireEvent.click(screen.getByRole("button", { name: "Add a product" }))
    expect(seen.draft.also).toEqual([{ product_id: 2, dose: "0.1" }])
    unmount()
    show(
      <FeedFields
        page={PAGE}
        draft={seen.draft}
        onChange={keep}
        problems={{ "also.0.dose_g_L": "Dose cannot be." }}
      />,
    )
    expect(screen.getByRole("alert").textContent).toBe("Dose cannot be.")
    fireEvent.change(screen.getByLabelText("Dose"), { target: { value: "0,2" } })
    expect(seen.draft.also).toEqual([{ product_id: 2, dose: "0,2" }])
    fireEvent.click(screen.getByRole("button", { name: "Leave out product 1" }))
    expect(seen.draft.also).toEqual([])
  })
  it("is plain water without anything beside it", () => {
    serve(BASE)
    show(
      <FeedFields
        page={PAGE}
        draft={{ ...DRAFT, also: [{ product_id: 3, dose: "1" }] }}
        onChange={keep}
        problems={{}}
      />,
    )
    fireEvent.change(screen.getByLabelText("Feed"), { target: { value: "" } })
    expect(seen.draft).toMatchObject({ product_id: null, also: [] })
  })
  it("blends by parts and goes back to one water", () => {
    serve(BASE)
    const { unmount } = show(
      <WaterFields waters={WATERS} draft={DRAFT} onChange={keep} problems={{}} />,
    )
    fireEvent.click(screen.getByRole("button", { name: "Blend it" }))
    expect(seen.draft.blend).toEqual([
      { water_id: 1, share: "3" },
      { water_id: 2, share: "1" },
    ])
    unmount()
    show(
      <WaterFields
        waters={WATERS}
        draft={seen.draft}
        onChange={keep}
        problems={{ blend: "The shares add up to nothing." }}
      />,
    )
    expect(screen.getByRole("alert").textContent).toContain("add up to nothing")
    fireEvent.change(screen.getAllByLabelText("Parts")[1] as HTMLElement, {
      target: { value: "2" },
    })
    expect(seen.draft.blend[1]).toEqual({ water_id: 2, share: "2" })
    fireEvent.click(screen.getByRole("button", { name: "One water only" }))
    expect(seen.draft).toMatchObject({ blend: [], water_id: 1 })
  })
})
