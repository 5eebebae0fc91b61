import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../../api/client"
import { serve, show } from "../../../testing/harness.test"
import { BASE, computed, METER, type } from "../samples.test"
import { Meters } from "./Meters"

describe("meters", () => {
  it("shows what the checks say, and what nobody knows", async () => {
    serve(BASE)
    show(<Meters />)
    await screen.findByText("Reads -5.0 %: readings are corrected, the shown values kept.")
    screen.getByText("due now")
    screen.getByText("two checks are needed")
    screen.getByText("Its ppm scale is not known: find it first.")
  })
  it("names the scale and sets it", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/meters/8/scale-guess": computed<Schemas["ScaleGuess"]>({
        scale: "0.7",
        confidence: "sure",
        factor: 0.7,
        odds: [
          { scale: "0.7", would_show: 989, share: 0.97 },
          { scale: "0.5", would_show: 707, share: 3.5e-61 },
        ],
        sentence: "The 0.7 scale: sure, 97 of 100.",
      }),
      "PUT /api/meters/8": { body: { id: 8 } },
    })
    show(<Meters />)
    fireEvent.click(await screen.findByRole("button", { name: "Which scale is it? Gift" }))
    expect(sent.some((s) => s.path.endsWith("/scale-guess"))).toBe(false) // nothing is asked before something was read
    type("Gift shows", "989")
    expect((await screen.findByRole("row", { name: /^0.5/ })).textContent).toContain("under 1")
    fireEvent.click(screen.getByRole("button", { name: "Set it to the 0.7 scale" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "PUT")?.body).toMatchObject({
        unit: "ppm",
        scale: "0.7",
        name: "Gift",
      }),
    )
  })
  it("keeps a check, with the meter's own unit", async () => {
    const sent = serve({ ...BASE, "POST /api/meters/7/checks": { status: 201, body: METER } })
    show(<Meters />)
    fireEvent.click(await screen.findByRole("button", { name: "Check in a standard: Pen 1" }))
    fireEvent.change(screen.getByLabelText("Standard, µS/cm at 25 °C"), {
      target: { value: "own" },
    })
    type("Printed on the bottle, µS/cm", "500")
    type("The meter shows, µS/cm", "480")
    fireEvent.click(screen.getByRole("button", { name: "Save the check" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({
        standard: "own",
        own_uS_cm: "500",
        shown: "480",
        adjusted: false,
      }),
    )
  })
  it("adds a ppm meter with its scale", async () => {
    const sent = serve({ ...BASE, "POST /api/meters": { status: 201, body: { id: 9 } } })
    show(<Meters />)
    fireEvent.click(await screen.findByRole("button", { name: "Add a meter" }))
    type("Name", "Second")
    await screen.findByRole("option", { name: "ppm" })
    fireEvent.change(screen.getByLabelText("It shows"), { target: { value: "ppm" } })
    fireEvent.change(screen.getByLabelText("ppm scale"), { target: { value: "0.64" } })
    fireEvent.click(screen.getByRole("button", { name: "Save the meter" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({
        name: "Second",
        unit: "ppm",
        scale: "0.64",
      }),
    )
  })
})
