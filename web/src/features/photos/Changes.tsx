import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { DataTable } from "../../ui/DataTable"
import { day, numberIn, unitName } from "../../ui/format"
import { Card } from "../../ui/Page"

const length = (leaf: Schemas["LeafBetween"], on: string, mm: number | null) =>
  mm !== null
    ? numberIn(Math.round(mm), "mm")
    : leaf.opened_on > on
      ? "not open yet"
      : "not measured"

/** What changed between two photos, and each leaf on both days with what it can answer. */
export function Changes({ compared }: { compared: Schemas["Compared"] }) {
  const { between, pair } = compared
  return (
    <Box>
      <Card title="What changed in between">
        {between.happened.length === 0 && <Text>Nothing that was logged.</Text>}
        <Box as="ul" listStyleType="none">
          {between.happened.map((h, i) => (
            <Box as="li" key={i} borderTopWidth={i ? "1px" : "0"} py="1.5">
              <Text as="span" color="fg.muted">
                {day(h.on)}
              </Text>{" "}
              {h.words}
            </Box>
          ))}
        </Box>
        {pair.working.cautions.map((c) => (
          <Text key={c} color="state.caution">
            {c}
          </Text>
        ))}
      </Card>
      <Card title="Leaf by leaf" mt="4">
        <DataTable
          label="Leaves on both days"
          head={["Leaf", `Before, ${unitName("mm")}`, `After, ${unitName("mm")}`, "Formed"]}
          minW="0"
        >
          {[...between.leaves].reverse().map((l) => (
            <tr key={l.number}>
              <td>{l.number}</td>
              <td>{length(l, compared.before.on, l.before_mm)}</td>
              <td>{length(l, compared.after.on, l.after_mm)}</td>
              <td>{l.formed || "no change to judge"}</td>
            </tr>
          ))}
        </DataTable>
      </Card>
    </Box>
  )
}
