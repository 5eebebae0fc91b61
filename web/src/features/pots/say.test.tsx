import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it, vi } from "vitest"
import type { Schemas } from "../../api/client"
import { serve, SETTINGS, show, WORKING } from "../../testing/harness.test"
import { SayPots } from "./SayPots"

const said = (
  more: Partial<Schemas["SaidPots"]> = {},
  choices: Schemas["KindChoice"][] = [],
): { body: Schemas["SaidOut"] } => ({
  body: {
    code: "N-03",
    choices,
    said: {
      working: WORKING,
      result: {
        count: 2,
        kind: "nepenthes_highland",
        kind_name: "Nepenthes of the highlands",
        others: [],
        stem: "N-01",
        medium: "sphagnum_loose",
        medium_name: "Moss",
        top_cm: 12,
        height_cm: 10.8,
        volume_L: 0.87,
        drainage: "drains",
        interval_days: 3.5,
        sentence: "2 pots of Nepenthes, 0.87 L, in moss.",
        ...more,
      },
    },
  },
})
const type = (line: string) =>
  fireEvent.change(screen.getByLabelText("In one line, as you would say it"), {
    target: { value: line },
  })

describe("pots in one line", () => {
  it("are shown as understood, then saved as that many pots alike", async () => {
    const done = vi.fn()
    const sent = serve({
      "GET /api/settings": { body: SETTINGS },
      "POST /api/pots/said": said(),
      "POST /api/pots": { status: 201, body: { id: 7 } },
    })
    show(<SayPots onDone={done} />)
    expect(screen.queryByRole("button")).toBeNull()
    type("2 nepenthes")
    expect(await screen.findByText("2 pots of Nepenthes, 0.87 L, in moss.")).toBeTruthy()
    expect(sent.some((s) => s.path === "/api/pots")).toBe(false)
    fireEvent.click(screen.getByRole("button", { name: "Add 2 pots" }))
    await waitFor(() => expect(done).toHaveBeenCalledOnce())
    expect(sent.find((s) => s.path === "/api/pots")?.body).toMatchObject({
      code: "N-03",
      alike: 2,
      profile_id: "nepenthes_highland",
      medium_id: "sphagnum_loose",
      volume: 0.87,
      route: "top",
    })
  })

  it("let another kind of the same name be chosen, and water a tray from below", async () => {
    const sent = serve({
      "GET /api/settings": { body: SETTINGS },
      "POST /api/pots/said": said({ count: 1, drainage: "tray" }, [
        { id: "nepenthes_highland", name: "Highland" },
        { id: "nepenthes_lowland", name: "Lowland" },
      ]),
      "POST /api/pots": { status: 201, body: { id: 7 } },
    })
    show(<SayPots onDone={() => undefined} />)
    type("nepenthes")
    fireEvent.change(await screen.findByRole("combobox", { name: "Which of them" }), {
      target: { value: "nepenthes_lowland" },
    })
    await waitFor(() =>
      expect(sent.findLast((s) => s.path === "/api/pots/said")?.body).toMatchObject({
        kind: "nepenthes_lowland",
      }),
    )
    fireEvent.click(screen.getByRole("button", { name: "Add the pot" }))
    await waitFor(() =>
      expect(sent.find((s) => s.path === "/api/pots")?.body).toMatchObject({
        profile_id: "nepenthes_highland", // as it was understood, not as the page reckons
        drainage: "tray",
        route: "tray",
      }),
    )
  })

  it("say what was not understood and offer nothing to save", async () => {
    serve({
      "GET /api/settings": { body: SETTINGS },
      "POST /api/pots/said": {
        status: 422,
        body: { detail: "“roses” is no kind that is known.", errors: [] },
      },
    })
    show(<SayPots onDone={() => undefined} />)
    type("6 roses")
    expect((await screen.findByRole("alert")).textContent).toContain("“roses” is no kind")
    expect(screen.queryByRole("button")).toBeNull()
  })
})
