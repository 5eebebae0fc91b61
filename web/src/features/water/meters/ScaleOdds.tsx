import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { DataTable } from "../../../ui/DataTable"
import { figure } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"

/** The factor of the pen, and the odds of each scale. */
export function ScaleOdds({
  r,
  working,
}: {
  r: Schemas["ScaleGuess"]
  working: Schemas["Working"]
}) {
  return (
    <>
      <Text fontSize="lg" fontWeight="semibold">
        {r.sentence}
      </Text>
      <Text data-own-unit>
        Factor{" "}
        <Quantity
          label="Factor of the pen"
          value={r.factor}
          unit="shown for each µS/cm"
          working={{ kind: "here", working }}
        />
        .
      </Text>
      <Box maxW="420px" my="2">
        <DataTable
          label="Odds of each scale"
          head={["Scale", "Would show", "Odds of 100"]}
          minW="280px"
        >
          {r.odds.map((o) => (
            <tr key={o.scale} data-own-unit>
              <td>{o.scale}</td>
              <td>{figure(Math.round(o.would_show), 6)}</td>
              <td>{o.share < 0.005 ? "under 1" : figure(100 * o.share, 2)}</td>
            </tr>
          ))}
        </DataTable>
      </Box>
    </>
  )
}
