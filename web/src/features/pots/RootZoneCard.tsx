import { Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { day, figure } from "../../ui/format"
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
          Comfortable {row.ideal_low_uS_cm} to {row.ideal_high_uS_cm}, ceiling {row.ceiling_uS_cm}{" "}
          µS/cm: readings, confidence {page.confidence}.
        </Text>
        <Text fontWeight="semibold">{z.crossing.sentence}</Text>
        {z.observations.length === 0 && (
          <Text color="fg.muted">No runoff reading yet: the range is wide.</Text>
        )}
        {z.observations.at(-1) && (
          <Text color="fg.muted">
            Last runoff {figure(Math.round(z.observations.at(-1)?.runoff_ec ?? 0), 6)} on{" "}
            {day(z.observations.at(-1)?.on ?? page.today, page.today)}, expected{" "}
            {figure(Math.round(z.observations.at(-1)?.expected_runoff_ec ?? 0), 6)}; taken in.
          </Text>
        )}
      </Flex>
    </Card>
  )
}
