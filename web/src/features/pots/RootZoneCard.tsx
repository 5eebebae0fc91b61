import { Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { numberIn, amount, spanIn } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"

/** What is in the pot, what a pour-through would read, and when it crosses its ceiling. */
export function RootZoneCard({ page }: { page: Schemas["PotPage"] }) {
  const { row, root_zone: z } = page
  return (
    <Card title="Root zone today">
      <Flex direction="column" gap="1">
        <Text>
          In the pot:{" "}
          <b>
            <Quantity
              label="Root zone"
              kind="ec"
              value={z.root_zone_uS_cm}
              low={z.root_zone_low_uS_cm}
              high={z.root_zone_high_uS_cm}
              working={{ kind: "here", working: page.working }}
            />
          </b>
        </Text>
        <Text>
          A pour-through would read:{" "}
          <b>
            <Quantity
              label="Predicted reading"
              kind="ec"
              value={z.reading_uS_cm}
              low={z.reading_low_uS_cm}
              high={z.reading_high_uS_cm}
              working={{ kind: "here", working: page.working }}
            />
          </b>
        </Text>
        <Text>
          Comfortable {spanIn(row.ideal_low_uS_cm, row.ideal_high_uS_cm, "µS/cm")}, ceiling{" "}
          {amount(row.ceiling_uS_cm, "µS/cm")}: readings, confidence {page.confidence}.
        </Text>
        <Text fontWeight="semibold">{z.crossing.sentence}</Text>
        {z.observations.length === 0 && (
          <Text color="fg.muted">No runoff reading yet: the range is wide.</Text>
        )}
        {page.read_sentence && <Text color="fg.muted">{page.read_sentence}</Text>}
        {page.by_medium && (
          <Text color="fg.muted">
            By its medium alone it would be {numberIn(page.by_medium.reading, "µS/cm")} (
            {numberIn(page.by_medium.low, "µS/cm")} to {numberIn(page.by_medium.high, "µS/cm")}):
            its readings made the rest of it.
          </Text>
        )}
        {page.prills_sentence && <Text color="fg.muted">{page.prills_sentence}</Text>}
      </Flex>
    </Card>
  )
}
