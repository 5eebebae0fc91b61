import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { elsewhere, type Sent, serve, SETTINGS, show } from "../../testing/harness.test"
import { SettingsForm } from "./SettingsForm"

const stands = {
  ...SETTINGS["GET /api/settings"].body,
  theme: "light",
  collection_name: "Ansa Orangery",
  fallen_back: [],
} as unknown as Schemas["SettingsOut"]
const bodies = (sent: Sent[]) =>
  sent.filter((s) => s.method === "PUT").map((s) => s.body as Record<string, unknown>)

describe("a form that somebody else saved meanwhile", () => {
  it("says so beside the field, keeps what was typed, and stores it when sent again", async () => {
    const sent = serve({
      ...SETTINGS,
      "PUT /api/settings": elsewhere(
        "collection_name",
        "Changed elsewhere: “East bench” now.",
        { collection_name: "East bench" },
        { ...stands, collection_name: "West bench" },
      ),
    })
    show(<SettingsForm settings={stands} />)
    const name = await screen.findByLabelText("Name of the collection")
    fireEvent.change(name, { target: { value: "West bench" } })
    fireEvent.click(screen.getByRole("button", { name: "Save the settings" }))
    expect(await screen.findByText("Changed elsewhere: “East bench” now.")).toBeTruthy()
    expect((name as HTMLInputElement).value).toBe("West bench")
    fireEvent.click(screen.getByRole("button", { name: "Save the settings" }))
    expect(await screen.findByText("Settings saved.")).toBeTruthy()
    const [first, second] = bodies(sent)
    expect(first?.["seen"]).toMatchObject({ collection_name: "Ansa Orangery", theme: "light" })
    expect(first?.["seen"]).not.toHaveProperty("display")
    expect(second).toMatchObject({
      collection_name: "West bench",
      seen: { collection_name: "East bench", theme: "light" },
    })
  })

  it("goes on from what it stored itself", async () => {
    const sent = serve({
      ...SETTINGS,
      "PUT /api/settings": ({ body }) => ({ body: { ...stands, ...(body as object) } }),
    })
    show(<SettingsForm settings={stands} />)
    const name = await screen.findByLabelText("Name of the collection")
    for (const text of ["West bench", "Ansa Orangery"]) {
      fireEvent.change(name, { target: { value: text } })
      fireEvent.click(screen.getByRole("button", { name: "Save the settings" }))
      await waitFor(() => expect(bodies(sent).at(-1)?.["collection_name"]).toBe(text))
      await waitFor(() =>
        expect(
          screen.getByRole("button", { name: "Save the settings" }).hasAttribute("disabled"),
        ).toBe(false),
      )
    }
    expect(bodies(sent)[1]?.["seen"]).toMatchObject({ collection_name: "West bench" })
  })
})
