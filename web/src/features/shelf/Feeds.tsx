import { Mind } from "../../ui/Mind"
import { Box, Button, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { day, figure, amountOf, amount } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Owned } from "./Owned"

const ELEMENTS: [keyof Schemas["Elements"], string][] = [
  ["N_nitrate_mg_g", "nitrate N"],
  ["N_ammonium_mg_g", "ammonium N"],
  ["N_urea_mg_g", "urea N"],
  ["N_other_mg_g", "slow N"],
  ["P_mg_g", "P"],
  ["K_mg_g", "K"],
  ["Ca_mg_g", "Ca"],
  ["Mg_mg_g", "Mg"],
  ["S_mg_g", "S"],
  ["Fe_mg_g", "Fe"],
]
const GROUPS: [string, (p: Schemas["ProductOut"]) => boolean][] = [
  ["On your shelf", (p) => p.owned],
  ["Labels to choose from: feeds", (p) => p.label.kind === "soluble" && p.label.formula === ""],
  ["Salts by formula", (p) => p.label.formula !== ""],
  ["Prills", (p) => p.label.kind === "prill"],
  ["Without a ppm: recorded, never given a number", (p) => p.label.kind === "no ppm"],
]

type Props = {
  page: Schemas["ShelfPage"]
  onEdit: (p: Schemas["ProductOut"]) => void
  onGive: (p: Schemas["ProductOut"]) => void
}

/** Feeds by kind, each with what its label comes to and what is left of it. */
export function Feeds({ page, onEdit, onGive }: Props) {
  return (
    <Flex direction="column" gap="4">
      <Mind of="feed" />
      {GROUPS.map(([title, belongs]) => {
        const rows = page.products.filter(
          (p) => belongs(p) && (title === "On your shelf" || !p.owned),
        )
        return (
          rows.length > 0 && (
            <Card key={title} title={title}>
              {rows.map((p) => (
                <Flex
                  key={p.id}
                  py="2"
                  borderTopWidth="1px"
                  gap="3"
                  justify="space-between"
                  align="flex-start"
                >
                  <Box minW="0">
                    <Text fontWeight="semibold">{p.name}</Text>
                    <Line
                      p={p}
                      pack={page.packs.find((x) => x.product_id === p.id)}
                      today={page.today}
                    />
                  </Box>
                  <Flex gap="2" wrap="wrap" justify="flex-end" flexShrink="0">
                    <Owned p={p} />
                    {p.label.kind !== "soluble" && (
                      <Button
                        size="sm"
                        variant="outline"
                        minH="40px"
                        aria-label={`Give ${p.name}`}
                        onClick={() => onGive(p)}
                      >
                        Give
                      </Button>
                    )}
                    <Button
                      size="sm"
                      variant="outline"
                      minH="40px"
                      aria-label={`Edit ${p.name}`}
                      onClick={() => onEdit(p)}
                    >
                      Edit
                    </Button>
                  </Flex>
                </Flex>
              ))}
            </Card>
          )
        )
      })}
    </Flex>
  )
}

const lastsAt = (celsius: number | null | undefined) =>
  celsius == null ? "a temperature not stated" : amount(celsius, "°C")

function Line({
  p,
  pack,
  today,
}: {
  p: Schemas["ProductOut"]
  pack?: Schemas["PackOut"]
  today: string
}) {
  const l = p.label
  const facts = [
    l.formula ||
      (l.kind === "soluble"
        ? `${l.form}${l.form === "liquid" ? `, ${l.density_g_mL ?? "density not stated"} g/mL` : ""}`
        : l.kind === "prill"
          ? `${l.longevity_days} days at ${lastsAt(l.longevity_at_C)}`
          : ""),
    l.kind === "soluble"
      ? l.label_rate
        ? `label rate ${l.label_rate} ${l.label_rate_unit ?? ""}`
        : "label states no rate"
      : "",
    p.elements.split_known ? "" : "forms of nitrogen not stated",
    p.acidity_kg_t !== null
      ? Math.round(p.acidity_kg_t) === 0
        ? "neither acid nor basic"
        : p.acidity_kg_t > 0
          ? `acid, ${figure(p.acidity_kg_t, 2)} kg CaCO3/t`
          : `basic, ${figure(-p.acidity_kg_t, 2)} kg CaCO3/t`
      : "",
    pack?.left_now != null ? `${amountOf(pack.left_now, pack.unit)} left` : "",
    pack?.opened_on ? `opened ${day(pack.opened_on, today)}` : "",
  ].filter(Boolean)
  const holds = ELEMENTS.filter(([key]) => Number(p.elements[key]) > 0)
  return (
    <>
      <Text fontSize="sm" color="fg.muted">
        {facts.join(" · ")}
      </Text>
      {holds.length > 0 && (
        <Text fontSize="sm">
          {holds.map(([key, name]) => `${name} ${figure(Number(p.elements[key]))}`).join(" · ")}{" "}
          <Text as="span" color="fg.muted">
            mg in a gram
          </Text>
        </Text>
      )}
    </>
  )
}
