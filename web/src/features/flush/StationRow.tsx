import { Badge, Box, Button, Grid, Text } from "@chakra-ui/react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { day, numberIn } from "../../ui/format"
import { PotRail } from "../../ui/PotRail"
import { Quantity } from "../../ui/Quantity"
import { YearAhead } from "./YearAhead"

type Props = {
  pot: Schemas["FlushRow"]
  ahead: Schemas["YearAhead"] | null
  today: string
  chosen: boolean
  onChoose: () => void
}

/** A pot on its rail, its year ahead, and the one line that matters of it. */
export function StationRow({ pot, ahead, today, chosen, onChoose }: Props) {
  const { row } = pot
  return (
    <Box px="2" py="1" borderRadius="md" bg={chosen ? "bg.subtle" : undefined}>
      <Grid
        templateColumns={{ base: "74px minmax(0,1fr) 62px", xl: "74px 1fr 62px minmax(0,1.1fr)" }}
        gap="3"
        alignItems="center"
      >
        <Button
          size="sm"
          minH="44px"
          variant={chosen ? "solid" : "outline"}
          aria-pressed={chosen}
          onClick={onChoose}
        >
          {row.code}
        </Button>
        <PotRail row={row} />
        <Box textAlign="right">
          <Quantity
            label={`Predicted reading of ${row.code}`}
            kind="ec"
            value={row.reading_uS_cm}
            bare
            working={{
              kind: "fetch",
              key: `pot-${row.id}`,
              load: () =>
                answer(
                  client.GET("/api/pots/{pot_id}/root-zone", {
                    params: { path: { pot_id: row.id } },
                  }),
                ),
            }}
          />
        </Box>
        <Box display={{ base: "none", xl: "block" }}>
          <YearAhead row={row} ahead={ahead} today={today} />
        </Box>
      </Grid>
      <Text fontSize="sm" color="fg.muted" pl={{ base: 0, md: "88px" }}>
        {pot.running_id !== null && (
          <Badge asChild mr="2" minH="24px">
            <Link to={`/flush/${pot.running_id}`}>Being flushed: go on</Link>
          </Badge>
        )}
        {line(pot, ahead, today)}
      </Text>
    </Box>
  )
}

function line(
  { held, held_ends, due, last_flush_on, row }: Schemas["FlushRow"],
  ahead: Schemas["YearAhead"] | null,
  today: string,
) {
  const flushed = last_flush_on ? `, flushed ${day(last_flush_on, today)}` : ""
  if (held) return `No flush: ${held} ${held_ends}`
  if (row.over_ceiling)
    return `Over its ceiling of ${numberIn(row.ceiling_uS_cm, "µS/cm")}${flushed}.`
  if (due) return `Near its ceiling of ${numberIn(row.ceiling_uS_cm, "µS/cm")}: flush it${flushed}.`
  if (ahead?.crosses_on) return `Crosses about ${day(ahead.crosses_on, today)}${flushed}.`
  return ahead ? `Stays under for a year${flushed}.` : `No rhythm yet${flushed}.`
}
