import { Box, Button, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { Choose } from "../../ui/EntryRow"
import { Part, type PartProps } from "./Part"
import type { ProductRow } from "./values"

const WHENS: { when: ProductRow["when"]; label: string }[] = [
  { when: "", label: "Feed" },
  { when: "growth", label: "In growth" },
  { when: "spike", label: "From the spike" },
  { when: "bloom", label: "In bloom" },
]

/** What with: one feed, or one for growth, spike and bloom. */
export function WhatWith({
  values: v,
  set,
  problem,
  mix,
}: PartProps & { mix: Schemas["MixPage"] }) {
  const phased = v.products.some((p) => p.when !== "")
  const rows = phased ? WHENS.slice(1) : WHENS.slice(0, 1)
  const of = (when: ProductRow["when"]) => v.products.find((p) => p.when === when)
  const choose = (when: ProductRow["when"], product: string) => {
    const others = v.products.filter((p) => p.when !== when)
    const row = { when, product_id: product === "none" ? "" : product }
    set({ products: product === "" ? others : [...others, row] })
  }
  const byPhase = () => {
    const now = of("")?.product_id ?? ""
    set({
      products: phased
        ? now
          ? [{ when: "", product_id: now }]
          : []
        : [{ when: "growth", product_id: now }],
    })
  }
  const owned = mix.products.filter((p) => p.owned && p.label.kind === "soluble")
  const rest = mix.products.filter((p) => !p.owned && p.label.kind === "soluble")
  return (
    <Part title="What with" problem={problem["products/0/product_id"]}>
      {rows.map(({ when, label }) => {
        const row = of(when)
        return (
          <Choose
            key={when}
            label={label}
            value={row ? row.product_id || "none" : ""}
            onChange={(x) => choose(when, x)}
          >
            <option value="">as a wider plan says</option>
            {when !== "" && <option value="none">nothing</option>}
            <optgroup label="On your shelf">
              {owned.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </optgroup>
            <optgroup label="Not on your shelf yet">
              {rest.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </optgroup>
          </Choose>
        )
      })}
      <Box mt="2">
        <Button size="sm" variant="outline" minH="44px" onClick={byPhase}>
          {phased ? "One feed for all" : "By growth, spike and bloom"}
        </Button>
      </Box>
      <Text fontSize="sm" color="fg.muted" mt="2">
        The round weighs only what is on your shelf.
      </Text>
    </Part>
  )
}
