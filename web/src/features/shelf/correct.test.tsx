import { fireEvent, screen, waitFor } from "@testing-library/react"
import { useState } from "react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { elsewhere, type Sent, serve, SETTINGS, show } from "../../testing/harness.test"
import { ProductForm } from "./ProductForm"

const FEED = {
  id: 4,
  name: "Own mix",
  label: { name: "Own mix", kind: "soluble", form: "powder", basis: "w/w", p_pct: 5, k_pct: 12 },
  owned: true,
  shipped: false,
} as unknown as Schemas["ProductOut"]
const PACK = { product_id: 4, unit: "g", price: 10, left_now: 500 } as Schemas["PackOut"]

/** The shelf is asked for anew while the form is open: another has corrected the feed. */
function Shelf() {
  const [product, setProduct] = useState(FEED)
  const other = { ...FEED, name: "Renamed", label: { ...FEED.label, name: "Renamed" } }
  return (
    <>
      <button onClick={() => setProduct(other)}>another saved</button>
      <ProductForm product={product} pack={PACK} onClose={() => undefined} />
    </>
  )
}

const corrections = (sent: Sent[]) =>
  sent.filter((s) => s.path === "/api/products/4/correct").map((s) => s.body)

describe("a feed that is corrected", () => {
  it("says what it was opened on, whatever the shelf beside it says by now", async () => {
    const sent = serve({ ...SETTINGS, "POST /api/products/4/correct": { body: { id: 4 } } })
    show(<Shelf />)
    fireEvent.click(screen.getByText("another saved"))
    fireEvent.click(screen.getByRole("button", { name: "Save the correction" }))
    await waitFor(() => expect(corrections(sent)).toHaveLength(1))
    const [body] = corrections(sent)
    expect(body).toMatchObject({ name: "Own mix", seen: { name: "Own mix", price: "10" } })
    expect(body).not.toHaveProperty("seen.seen")
  })
  it("tells beside the field what another made of it, and is stored when sent again", async () => {
    const sent = serve({
      ...SETTINGS,
      "POST /api/products/4/correct": elsewhere("name", "It is “Renamed” now.", {
        name: "Renamed",
      }),
    })
    show(<Shelf />)
    const name = screen.getByLabelText("Name")
    fireEvent.change(name, { target: { value: "Bench mix" } })
    fireEvent.click(screen.getByRole("button", { name: "Save the correction" }))
    expect(await screen.findByText("It is “Renamed” now.")).toBeTruthy()
    expect((name as HTMLInputElement).value).toBe("Bench mix")
    fireEvent.click(screen.getByRole("button", { name: "Save the correction" }))
    await waitFor(() => expect(corrections(sent)).toHaveLength(2))
    expect(corrections(sent)[1]).toMatchObject({
      name: "Bench mix",
      seen: { name: "Renamed", price: "10" },
    })
  })
})
