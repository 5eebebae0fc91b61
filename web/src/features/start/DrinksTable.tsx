import { Box, Text } from "@chakra-ui/react"
import { DataTable } from "../../ui/DataTable"
import { Quantity } from "../../ui/Quantity"
import { Card } from "../../ui/Page"
import type { Drawn } from "./answers"

/** Who may drink which: a row a kind, a column a water. */
export function DrinksTable({ drawn }: { drawn: Drawn }) {
  const plan = drawn.plan.result
  const word = (kind: string, water: number) =>
    plan.verdicts.find((v) => v.kind === kind && v.water === water)?.word ?? ""
  return (
    <Card title="Who may drink which">
      {plan.plants.length > 0 && drawn.waters.length > 0 && (
        <DataTable
          label="Who may drink which"
          minW="0"
          head={["Plant", "Pots", ...drawn.waters.map((w) => w.name)]}
        >
          {plan.plants.map((p) => (
            <tr key={p.kind}>
              <td>{p.name}</td>
              <td>{p.pots}</td>
              {drawn.waters.map((w, i) => (
                <td key={w.kind}>{word(p.kind, i)}</td>
              ))}
            </tr>
          ))}
        </DataTable>
      )}
      <Text mt="3">
        <b>{plan.sentence}</b>{" "}
        {plan.low_L_week != null && plan.high_L_week != null && (
          <>
            They drink{" "}
            <Quantity
              label="Water a week"
              kind="volume"
              value={(plan.low_L_week + plan.high_L_week) / 2}
              low={plan.low_L_week}
              high={plan.high_L_week}
              working={{ kind: "here", working: drawn.plan.working }}
            />{" "}
            a week.
          </>
        )}
      </Text>
      {plan.caution && (
        <Text mt="1" fontSize="sm" color="state.caution">
          {plan.caution}
        </Text>
      )}
    </Card>
  )
}

/** What would settle most, first. */
export function MissingList({ drawn }: { drawn: Drawn }) {
  return (
    <Card title="What is missing">
      <Box as="ul" listStyleType="none">
        {drawn.plan.result.missing.map((m) => (
          <Box as="li" key={m.what} py="1.5" borderBottomWidth="1px" _last={{ border: 0 }}>
            <Text fontWeight="semibold">{m.what}</Text>
            <Text fontSize="sm" color="fg.muted">
              {m.settles}
            </Text>
          </Box>
        ))}
      </Box>
      <Text mt="2" fontSize="xs" color="fg.muted">
        In the order of how much each would settle.
      </Text>
    </Card>
  )
}
