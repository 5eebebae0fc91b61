import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { membraneQuery } from "../../../api/waterQueries"
import { amount, day, numberIn } from "../../../ui/format"
import { Loaded } from "../../../ui/Page"
import { LineChart } from "../LineChart"
import { PairForm } from "./PairForm"
import { MembraneFacts } from "./MembraneFacts"

/** Rejection from feed and permeate read together, where it goes, what it wastes. */
export function MembraneTool({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const units = page.waters.filter((w) => w.kind === "permeate")
  const unit = units.find((w) => w.id === chosen) ?? units[0]
  const query = useQuery({ ...membraneQuery(unit?.id ?? 0), enabled: unit !== undefined })
  const [entering, setEntering] = useState(false)
  if (!unit)
    return (
      <Text>
        Add your reverse-osmosis unit as a source, and read its feed and its permeate together now
        and then: this tool tells when the membrane tires.
      </Text>
    )
  return (
    <Loaded query={query}>
      {(m) => (
        <>
          {entering ? (
            <PairForm
              unit={unit}
              floor={m.floor_pct}
              today={page.today}
              onClose={() => setEntering(false)}
            />
          ) : (
            <Button mb="3" onClick={() => setEntering(true)}>
              Enter a pair
            </Button>
          )}
          {m.answer ? (
            <Trend m={m} answer={m.answer} today={page.today} />
          ) : (
            <Text>
              No pair yet for {unit.name}. Read the feed and the permeate on the same day.
            </Text>
          )}
        </>
      )}
    </Loaded>
  )
}

function Trend({
  m,
  answer: a,
  today,
}: {
  m: Schemas["MembranePage"]
  answer: Schemas["Computed_MembraneTrend_"]
  today: string
}) {
  const r = a.result
  const here = { kind: "here" as const, working: a.working }
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1fr)" }} gap="6">
      <Box>
        <Text
          role={r.alarm ? "alert" : undefined}
          fontWeight="semibold"
          color={r.alarm ? "state.stop" : undefined}
        >
          {r.sentence}
        </Text>
        <MembraneFacts r={r} today={today} here={here} />
      </Box>
      <Box>
        <LineChart
          points={r.rejections.map((p) => ({ on: p.on, value: p.rejection_pct }))}
          today={today}
          unit="% rejected"
          limit={r.floor_pct}
        />
        <Flex direction="column" fontSize="sm" mt="2">
          {m.pairs.slice(0, 4).map((p) => (
            <Text key={p.id} py="1" borderTopWidth="1px">
              {day(p.on, today)}: feed {numberIn(p.feed_uS_cm, "µS/cm")}, permeate{" "}
              {amount(p.permeate_uS_cm, "µS/cm")}
            </Text>
          ))}
        </Flex>
      </Box>
    </Grid>
  )
}
