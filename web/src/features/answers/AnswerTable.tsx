import { Box } from "@chakra-ui/react"
import { DataTable } from "../../ui/DataTable"
import { day, figure, amount } from "../../ui/format"
import { Card } from "../../ui/Page"
import type { Chosen } from "./queries"

/** The table behind the drawing: a value a row. */
export function AnswerTable({ chosen, today }: { chosen: Chosen; today: string }) {
  const r = chosen.answer.result
  const rows = [...r.treated].reverse().slice(0, 12)
  if (rows.length === 0) return null
  return (
    <Card mt="4" label="Values">
      <Box as="details">
        <Box
          as="summary"
          cursor="pointer"
          minH="44px"
          display="flex"
          alignItems="center"
          fontWeight="semibold"
        >
          Values as a table
        </Box>
        <DataTable
          label="Values of the changed plant"
          head={["Day", "Value", "Of its twin", "Formed", "Weight"]}
        >
          {rows.map((v) => (
            <tr key={v.on}>
              <td>{day(v.on, today)}</td>
              <td>{chosen.measure === "leaf length" ? amount(v.value, "mm") : figure(v.value)}</td>
              <td>{v.share === null ? "no twin near" : `${figure(100 * v.share)} %`}</td>
              <td>{v.formed}</td>
              <td>{figure(100 * v.weight)} %</td>
            </tr>
          ))}
        </DataTable>
      </Box>
    </Card>
  )
}
