import { act, fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import { answer, client, keyed } from "../api/client"
import { serve, SETTINGS, show } from "../testing/harness.test"
import { SelectField, TextField, TickField } from "./fields"
import { EntrySheet } from "./EntrySheet"
import { useEntryForm } from "./useEntryForm"

const PATH = "POST /api/waters"
const done: number[] = []

function Form() {
  const entry = useEntryForm(
    { name: "", kind: "rain" as const, price_per_L: "", sure: false },
    (v, key) =>
      answer(
        client.POST("/api/waters", {
          params: keyed(key),
          body: {
            name: v.name,
            kind: v.kind,
            price_per_L: v.price_per_L,
            preference: 1,
            disinfectant: "none",
          },
        }),
      ),
    (stored) => done.push(stored.id),
  )
  return (
    <EntrySheet entry={entry} title="Add" submit="Keep">
      <TextField form={entry.form} name="name" label="Name" hint="as you call it" />
      <TextField form={entry.form} name="price_per_L" label="Price" unit="per litre" numeric />
      <SelectField
        form={entry.form}
        name="kind"
        label="Kind"
        choices={["rain", { value: "mains", label: "from the main" }]}
      />
      <TickField form={entry.form} name="sure" label="Sure" />
    </EntrySheet>
  )
}

const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
const keep = () => fireEvent.click(screen.getByRole("button", { name: "Keep" }))
const refusal = (pointer: string, detail: string) => ({
  status: 422,
  body: { detail, errors: [{ pointer, detail }] },
})

describe("an entry form", () => {
  it("sends what was typed, as typed, with a key", async () => {
    const sent = serve({ ...SETTINGS, [PATH]: { status: 201, body: { id: 7 } } })
    show(<Form />)
    type("Name", "Cistern")
    type("Price, per litre", "0,02")
    keep()
    await waitFor(() => expect(done).toContain(7))
    const post = sent.find((s) => s.method === "POST")
    expect(post?.body).toMatchObject({ name: "Cistern", price_per_L: "0,02" })
    expect(post?.key?.length).toBeGreaterThan(20)
  })
  it("puts the server’s sentence beside its field, keeps the entry and the focus there", async () => {
    serve({ ...SETTINGS, [PATH]: refusal("/price_per_L", "Price per litre -1 cannot be.") })
    show(<Form />)
    type("Name", "Cistern")
    type("Price, per litre", "-1")
    keep()
    await screen.findByText("Price per litre -1 cannot be.")
    const field = screen.getByLabelText("Price, per litre")
    expect(field.getAttribute("aria-invalid")).toBe("true")
    expect((field as HTMLInputElement).value).toBe("-1")
    expect(document.activeElement).toBe(field)
    expect((screen.getByLabelText("Name") as HTMLInputElement).value).toBe("Cistern")
  })
  it("says a sentence without a field above the button", async () => {
    serve({
      ...SETTINGS,
      [PATH]: { status: 409, body: { detail: "This submission key was used for another entry." } },
    })
    show(<Form />)
    keep()
    expect((await screen.findByRole("alert")).textContent).toContain("used for another entry")
  })
  it("keeps its key through a refusal and takes a new one after success", async () => {
    let count = 0
    const sent = serve({
      ...SETTINGS,
      [PATH]: () => {
        count += 1
        return count === 1
          ? refusal("/name", "Name is empty.")
          : { status: 201, body: { id: count } }
      },
    })
    show(<Form />)
    keep()
    await screen.findByText("Name is empty.")
    type("Name", "A")
    keep()
    await waitFor(() => expect(done).toContain(2))
    keep()
    await waitFor(() => expect(done).toContain(3))
    const keys = sent.filter((s) => s.method === "POST").map((s) => s.key)
    expect(keys[0]).toBe(keys[1])
    expect(keys[2]).not.toBe(keys[1])
  })
  it("takes two presses in a row for one", async () => {
    const sent = serve({ ...SETTINGS, [PATH]: { status: 201, body: { id: 19 } } })
    show(<Form />)
    type("Name", "Cistern")
    const form = screen.getByLabelText("Name").closest("form")
    if (!form) throw new Error("no form")
    act(() => {
      fireEvent.submit(form)
      fireEvent.submit(form)
    })
    await waitFor(() => expect(done).toContain(19))
    expect(sent.filter((s) => s.method === "POST")).toHaveLength(1)
    expect(done.filter((id) => id === 19)).toHaveLength(1)
    keep()
    await waitFor(() => expect(sent.filter((s) => s.method === "POST")).toHaveLength(2))
  })
  it("clears a sentence when the next try succeeds", async () => {
    let count = 0
    serve({
      ...SETTINGS,
      [PATH]: () => {
        count += 1
        return count === 1 ? refusal("/name", "Name is empty.") : { status: 201, body: { id: 40 } }
      },
    })
    show(<Form />)
    keep()
    await screen.findByText("Name is empty.")
    type("Name", "A")
    keep()
    await waitFor(() => expect(done).toContain(40))
    expect(screen.queryByText("Name is empty.")).toBeNull()
  })
  it("offers choices by their words", () => {
    show(<Form />)
    expect(
      [...(screen.getByLabelText("Kind") as HTMLSelectElement).options].map((o) => o.textContent),
    ).toEqual(["rain", "from the main"])
    fireEvent.click(screen.getByLabelText("Sure"))
    expect((screen.getByLabelText("Sure") as HTMLInputElement).checked).toBe(true)
  })
  it("tells in plain words that the server is away", async () => {
    serve({})
    globalThis.fetch = () => Promise.reject(new TypeError("refused"))
    show(<Form />)
    keep()
    expect((await screen.findByRole("alert")).textContent).toContain("Fenwa does not answer")
  })
})
