import { Box, Grid, Heading, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { amount, unitName } from "../../ui/format"
import { PotRail } from "../../ui/PotRail"
import { NameLink } from "../../ui/NameLink"

export default function Salt({ rows }: { rows: Schemas["PotRow"][] }) {
  if (rows.length === 0) return null
  return (
    <Box as="section">
      <Heading as="h2" fontSize="md" fontWeight="semibold" mb="2">
        Salt in the root zone, nearest to its ceiling first
      </Heading>
      <Card>
        {rows.map((r) => (
          <Grid
            key={r.id}
            templateColumns="58px minmax(0,1fr) auto"
            gap="3"
            alignItems="center"
            py="1"
          >
            <NameLink to={`/pots/${r.id}`}>{r.code}</NameLink>
            <PotRail row={r} />
            <Quantity
              label={`Predicted reading of ${r.code}`}
              kind="ec"
              value={r.reading_uS_cm}
              bare
              working={{
                kind: "fetch",
                key: `pot-${r.id}`,
                load: () =>
                  answer(
                    client.GET("/api/pots/{pot_id}/root-zone", {
                      params: { path: { pot_id: r.id } },
                    }),
                  ),
              }}
            />
          </Grid>
        ))}
        <Text fontSize="sm" color="fg.muted" mt="2">
          Box: comfortable. Bar: ceiling. Blob: predicted reading, with its 80 % range. Diamond:
          last runoff, as a reading. {unitName("µS/cm")} at {amount(25, "°C")}.
        </Text>
      </Card>
    </Box>
  )
}
