import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import type { Schemas } from "../../api/client"
import { serve, show } from "../../testing/harness.test"
import { asked, BASE, computed, PAGE as MIX, product, refused, type } from "../mix/samples.test"
import { Feeds } from "./Feeds"
import { GiveForm } from "./GiveForm"
import { bodyOf, labelOf, valuesOf } from "./labelFields"
import { ProductForm } from "./ProductForm"
import { Vessels } from "./Vessels"

const PACK: Schemas["PackOut"] = {
  product_id: 1,
  unit: "g",
  price: 18,
  pack_amount: 1000,
  opened_on: "2026-05-17",
  left_amount: 410,
  left_on: "2026-11-03",
  left_now: 366,
}
const PRILL = product(8, "Prills", { kind: "prill", longevity_days: 180, longevity_at_C: 21 })
const PAGE: Schemas["ShelfPage"] = {
  today: "2026-11-23",
  products: [...MIX.products, PRILL],
  packs: [PACK],
  measures: [
    {
      id: 1,
      name: "blue spoon",
      kind: "spoon",
      product_id: 1,
      product: "Nitrate feed",
      on: "2026-09-14",
      each: 1.14,
      unit: "g",
      cv: 0.1,
      mean_error_pct: 3,
    },
  ],
  vessels: [{ id: 1, name: "Big can", kind: "can", volume_L: 5 }],
}
const nothing = () => undefined

describe("the shelf", () => {
  it("sorts feeds, salts, prills and what has no ppm, with what is left", () => {
    const labels = { ...PAGE, products: PAGE.products.map((p) => ({ ...p, owned: false })) }
    const { container } = show(<Feeds page={labels} onEdit={nothing} onGive={nothing} />)
    expect(screen.getAllByRole("heading", { level: 2 }).map((h) => h.textContent)).toEqual([
      "Labels to choose from: feeds",
      "Salts by formula",
      "Prills",
      "Without a ppm: recorded, never given a number",
    ])
    expect(container.textContent).toContain("366 g left · opened 17 May")
    expect(container.textContent).toContain("180 days at 21 °C")
    expect(container.textContent).toContain("basic, 132 kg CaCO3/t")
  })
  it("offers to give only what is not dissolved", () => {
    let given = ""
    show(
      <Feeds
        page={PAGE}
        onEdit={nothing}
        onGive={(p) => {
          given = p.name
        }}
      />,
    )
    expect(screen.queryByRole("button", { name: "Give Nitrate feed" })).toBeNull()
    fireEvent.click(screen.getByRole("button", { name: "Give Prey" }))
    expect(given).toBe("Prey")
  })
  it("records prey at a pot by its count", async () => {
    let closed = false
    const sent = serve({
      ...BASE,
      "GET /api/mix": { body: MIX },
      "POST /api/feedings": { status: 201, body: { id: 4 } },
    })
    show(
      <GiveForm
        product={product(7, "Prey", { kind: "no ppm" })}
        today="2026-11-23"
        onClose={() => {
          closed = true
        }}
      />,
    )
    await screen.findByRole("option", { name: "G-01 Butterwort" })
    fireEvent.change(screen.getByLabelText("To pot"), { target: { value: "2" } })
    type("Amount", "2")
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await screen.findByText("Prey is recorded.")
    expect(asked(sent)).toMatchObject({ pot_ids: [2], product_id: 7, amount: "2", unit: "items" })
    expect(closed).toBe(true)
  })
  it("keeps a can’s size and lists the measures", async () => {
    const sent = serve({ ...BASE, "POST /api/vessels": { status: 201, body: { id: 2 } } })
    const { container } = show(<Vessels page={PAGE} />)
    expect(container.textContent).toContain("blue spoon, Nitrate feed1.14 g")
    fireEvent.click(screen.getByRole("button", { name: "Add a can or bottle" }))
    type("Name of it", "Mist bottle")
    fireEvent.change(screen.getByLabelText("It is a"), { target: { value: "mist bottle" } })
    type("Holds, L", "0,5")
    fireEvent.click(screen.getByRole("button", { name: "Save" }))
    await screen.findByText("Mist bottle is saved.")
    expect(asked(sent)).toEqual({ name: "Mist bottle", kind: "mist bottle", volume_L: "0,5" })
  })
})

describe("a label", () => {
  it("fills the form from a product and sends it back as it was", () => {
    const values = valuesOf(
      product(1, "Old feed", {
        label_rate: 0.5,
        label_rate_unit: "metric tsp/10 L",
        n_nitrate_pct: 9.5,
        fe_chelate: "DTPA",
      }),
      PACK,
    )
    expect(values).toMatchObject({
      rate_amount: "metric tsp",
      rate_per: "10 L",
      n_nitrate_pct: "9.5",
      left_amount: "366",
      opened_on: "2026-05-17",
    })
    expect(bodyOf(values)).toMatchObject({
      label_rate_unit: "metric tsp/10 L",
      n_nitrate_pct: "9.5",
      fe_chelate: "DTPA",
      price: "18",
    })
    expect(labelOf(values)).not.toHaveProperty("price")
  })
  it("leaves the shares of a formula to the formula", () => {
    expect(
      valuesOf(product(3, "Salt", { formula: "KNO3", k_pct: 38.67, pk_as: "element" })),
    ).toMatchObject({
      formula: "KNO3",
      k_pct: "",
      pk_as: "",
    })
    expect(bodyOf(valuesOf())).toMatchObject({ label_rate_unit: null, opened_on: null })
  })
  it("reads a grade and fills it in only when confirmed", async () => {
    const sent = serve({
      ...BASE,
      "POST /api/products/grade": computed<Schemas["Grade"]>({
        n_pct: 16,
        p_pct: 16,
        k_pct: 16,
        sentence: "Read as 16-16-16.",
        sure: true,
        others: [],
      }),
      "POST /api/products/elements": computed({
        N_mg_g: 160,
        P_mg_g: 69.8,
        K_mg_g: 133,
        Ca_mg_g: 0,
        Mg_mg_g: 0,
        S_mg_g: 0,
        Fe_mg_g: 0,
      }),
      "POST /api/products": refused(
        "The label's parts add up to 112 %, more than 100.",
        "/n_total_pct",
      ),
    })
    show(<ProductForm onClose={nothing} />)
    type("Name", "Old tin")
    type("Grade, if there is one", "161616")
    fireEvent.click(screen.getByRole("button", { name: "Read the grade" }))
    await screen.findByText("Read as 16-16-16.")
    expect((screen.getByLabelText("Total nitrogen, %") as HTMLInputElement).value).toBe("")
    fireEvent.click(screen.getByRole("button", { name: "Yes, that is it" }))
    expect((screen.getByLabelText("Phosphorus, %") as HTMLInputElement).value).toBe("16")
    await screen.findByText(/A gram holds N 160, P 69.8, K 133 mg/)
    fireEvent.click(screen.getByRole("button", { name: "Save the feed" }))
    await screen.findByText(/add up to 112 %/)
    expect(asked(sent, "/api/products")).toMatchObject({
      name: "Old tin",
      n_total_pct: "16",
      label_rate_unit: null,
    })
    expect((screen.getByLabelText("Name") as HTMLInputElement).value).toBe("Old tin")
  })
  it("asks prills for their time and prey for nothing", async () => {
    serve(BASE)
    show(<ProductForm onClose={nothing} />)
    fireEvent.change(screen.getByLabelText("It is"), { target: { value: "prill" } })
    await screen.findByLabelText("Lasts, days")
    fireEvent.change(screen.getByLabelText("It is"), { target: { value: "no ppm" } })
    await waitFor(() => expect(screen.queryByLabelText("Total nitrogen, %")).toBeNull())
    expect(screen.queryByLabelText("Lasts, days")).toBeNull()
  })
  it("hides the shares once a formula is typed", async () => {
    serve({
      ...BASE,
      "POST /api/products/elements": refused("Formula “K” is not understood.", "/formula"),
    })
    show(<ProductForm onClose={nothing} />)
    type("Or its formula", "KNO3")
    await waitFor(() => expect(screen.queryByLabelText("Potassium, %")).toBeNull())
    screen.getByLabelText("Label rate")
  })
})
