import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../../api/client"
import { serve, show } from "../../../testing/harness.test"
import { BASE, PAGE, PEN, read, type } from "../samples.test"
import { FileImport } from "./FileImport"
import { Inbox } from "./Inbox"
import { ReadingForm } from "./ReadingForm"

describe("readings", () => {
  it("takes the meter the water was last read with, and asks no unit of it", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/waters/1/readings": { status: 201, body: read(9, "2026-11-23", 33) },
    })
    show(
      <ReadingForm waters={PAGE.waters} today="2026-11-23" chosen={1} onClose={() => undefined} />,
    )
    type(await screen.findByLabelText("The meter shows").then(() => "The meter shows"), "31.4")
    expect(screen.queryByLabelText("Unit")).toBeNull()
    fireEvent.click(screen.getByRole("button", { name: "Save the reading" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({
        value: "31.4",
        unit: "µS/cm",
        meter_id: 7,
        origin: "typed",
        trace: [],
        amounts: [],
      }),
    )
  })
  it("sends a strip's range with its unit and no conductivity", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/waters/4/readings": {
        status: 201,
        body: { ...read(9, "2026-11-23", 0), value: null, ec25_uS_cm: null },
      },
    })
    show(
      <ReadingForm waters={PAGE.waters} today="2026-11-23" chosen={4} onClose={() => undefined} />,
    )
    await screen.findByLabelText("Unit") // never read: no usual meter
    type("Hardness", "3-6")
    fireEvent.change(screen.getByLabelText("Unit of hardness"), { target: { value: "°dH" } })
    fireEvent.click(screen.getByRole("button", { name: "Save the reading" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toMatchObject({
        value: "",
        amounts: [{ quantity: "hardness", typed: "3-6", unit: "°dH" }],
      }),
    )
    await screen.findByText("Saved.")
  })
  it("fills in what the pen settled at and keeps its trace", async () => {
    const settled: Schemas["PenOut"] = {
      ...PEN,
      reading: true,
      settled: true,
      value_uS_cm: 32.46,
      corrected_uS_cm: 34.3,
      temperature_C: 18.12,
      meter_id: 7,
      trace: [
        { t_s: 0, ec_uS_cm: 10 },
        { t_s: 2, ec_uS_cm: 32.4 },
      ],
    }
    const sent = serve({
      ...BASE,
      "PUT /api/pen/simulated": { body: PEN },
      "POST /api/pen/start": { body: settled },
      "POST /api/waters/1/readings": { status: 201, body: read(9, "2026-11-23", 34) },
    })
    show(
      <ReadingForm waters={PAGE.waters} today="2026-11-23" chosen={1} onClose={() => undefined} />,
    )
    fireEvent.click(await screen.findByRole("button", { name: "Read the pen" }))
    await waitFor(() =>
      expect((screen.getByLabelText("The meter shows") as HTMLInputElement).value).toBe("32.5"),
    )
    screen.getByText("Settled when all samples lie within 1 %.")
    fireEvent.click(screen.getByRole("button", { name: "Save the reading" }))
    await waitFor(() =>
      expect(sent.find((s) => s.path.endsWith("/readings"))?.body).toMatchObject({
        origin: "pen",
        meter_id: 7,
        trace: [{ t_s: 0 }, { t_s: 2 }],
      }),
    )
  })
  it("says why the pen broke off and fills nothing in", async () => {
    serve({
      ...BASE,
      "PUT /api/pen/simulated": { body: PEN },
      "POST /api/pen/start": {
        body: { ...PEN, reading: true, problem: "The pen was unplugged. Nothing was kept." },
      },
    })
    show(
      <ReadingForm waters={PAGE.waters} today="2026-11-23" chosen={1} onClose={() => undefined} />,
    )
    fireEvent.click(await screen.findByRole("button", { name: "Read the pen" }))
    expect((await screen.findByRole("alert")).textContent).toContain("Nothing was kept.")
    expect((screen.getByLabelText("The meter shows") as HTMLInputElement).value).toBe("")
  })
  it("is read in this water, and only once it is plugged in", async () => {
    const sent = serve({
      ...BASE,
      "GET /api/pen": { body: { ...PEN, plugged: false } },
      "PUT /api/pen/simulated": { body: { ...PEN, plugged: true } },
      "POST /api/pen/start": { body: { ...PEN, plugged: true, reading: true, settled: true } },
    })
    show(
      <ReadingForm waters={PAGE.waters} today="2026-11-23" chosen={1} onClose={() => undefined} />,
    )
    fireEvent.click(await screen.findByRole("button", { name: "Plug it in" }))
    fireEvent.click(screen.getByRole("button", { name: "Read the pen" }))
    await waitFor(() => expect(sent.some((s) => s.path === "/api/pen/start")).toBe(true))
    expect(sent.filter((s) => s.method === "PUT").map((s) => s.body)).toEqual([
      { water_id: null, pot_id: null, plugged: true },
      { water_id: 1, pot_id: null, plugged: true },
    ])
  })
  it("assigns what a logger posted", async () => {
    const sent = serve({
      ...BASE,
      "GET /api/inbox": {
        body: [
          {
            id: 5,
            device: "urn:dev:ops:probe",
            meter: null,
            at: "2026-11-23T05:00:00",
            ec_uS_cm: 35,
            temperature_C: 9.5,
            pH: null,
          },
        ],
      },
      "POST /api/inbox/5/keep": { status: 201, body: read(9, "2026-11-23", 35) },
    })
    show(<Inbox page={PAGE} chosen={2} />)
    fireEvent.change(await screen.findByLabelText("Water it was taken in"), {
      target: { value: "1" },
    })
    fireEvent.click(screen.getByRole("button", { name: "Save as a reading" }))
    await waitFor(() =>
      expect(sent.find((s) => s.method === "POST")?.body).toEqual({ water_id: 1 }),
    )
  })
  it("shows the row and the reason of a refused file and keeps what was pasted", async () => {
    serve({
      ...BASE,
      "POST /api/readings/import": {
        status: 422,
        body: { detail: "Row 3, column “value”: Value “x” is not a number." },
      },
    })
    show(<FileImport what="readings" onClose={() => undefined} />)
    type("Or paste it here", "water,date,value")
    fireEvent.click(screen.getByRole("button", { name: "Take it in" }))
    expect((await screen.findByRole("alert")).textContent).toContain("Row 3, column “value”")
    expect((screen.getByLabelText("Or paste it here") as HTMLTextAreaElement).value).toBe(
      "water,date,value",
    )
  })
})
