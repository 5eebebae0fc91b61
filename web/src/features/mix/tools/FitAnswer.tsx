import { Button, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { DataTable } from "../../../ui/DataTable"
import { figure, amountOf } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"

/** What to weigh of each, and how near it comes. */
export function FitAnswer({
  r,
  here,
  take,
}: {
  r: Schemas["Fit"]
  here: { kind: "here"; working: Schemas["Working"] } | undefined
  take: () => void
}) {
  return (
    <>
      <Text fontWeight="semibold" mb="2">
        {r.sentence}
      </Text>
      {r.parts.map((p) => (
        <Flex
          key={p.name}
          justify="space-between"
          py="1.5"
          borderTopWidth="1px"
          align="baseline"
          gap="3"
        >
          <Text>{p.name}</Text>
          <Text fontSize="xl" fontWeight="semibold" whiteSpace="nowrap">
            <Quantity label={p.name} value={p.rounded} unit={p.unit} working={here} />{" "}
            <Text as="span" fontSize="sm" fontWeight="normal" color="fg.muted">
              best {amountOf(p.amount, p.unit)}
            </Text>
          </Text>
        </Flex>
      ))}
      <DataTable
        label="Elements of the fit"
        head={["Element", "Wanted", "At best", "As weighed", "Error"]}
        minW="340px"
      >
        {r.elements.map((e) => (
          <tr key={e.element}>
            <td>{e.element}</td>
            <td>{figure(e.target_mg_L, 3)}</td>
            <td>{figure(e.best_mg_L, 3)}</td>
            <td>
              <Quantity
                label={`${e.element} as weighed`}
                value={e.weighed_mg_L}
                unit="mg/L"
                working={here}
              />
            </td>
            <td>
              {figure(e.error_pct, 2)} %{e.reached ? "" : ", not reached"}
            </td>
          </tr>
        ))}
      </DataTable>
      <Text mt="2">
        Expect{" "}
        <b>
          <Quantity label="EC of the fit" kind="ec" value={r.ec25_uS_cm} working={here} />
        </b>
        {r.nitrate_share !== null
          ? `; ${figure(100 * r.nitrate_share, 3)} % of the nitrogen is nitrate`
          : ""}
        {r.cost_per_L !== null ? `; ${figure(r.cost_per_L, 2)} a litre` : ""}.
      </Text>
      <Button mt="3" variant="outline" minH="44px" onClick={take}>
        Take it to the can
      </Button>
    </>
  )
}
