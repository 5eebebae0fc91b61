import { Box, Button, Flex, Grid } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { Card, Loaded, PageHead, Teach } from "../../ui/Page"
import { ChosenPot } from "./ChosenPot"
import { FlushRoundCard } from "./FlushRoundCard"
import { flushStationQuery } from "./queries"
import { RinseCalendar } from "./RinseCalendar"
import { StationRow } from "./StationRow"
import { YearAxis } from "./YearAxis"

const FIRST = 14

/** Every pot by how near its salt is to its ceiling, its year ahead, and what would bring it down. */
export function Screen() {
  return <Loaded query={useQuery(flushStationQuery)}>{(page) => <Station page={page} />}</Loaded>
}

function Station({ page }: { page: Schemas["FlushPage"] }) {
  const [chosen, setChosen] = useState<number | null>(null)
  const [all, setAll] = useState(false)
  const pot = page.pots.find((p) => p.row.id === chosen) ?? page.pots[0]
  if (!pot) {
    return (
      <>
        <PageHead title="Flush" line="Salt gathers where water evaporates." />
        <Teach
          action={
            <Button asChild>
              <Link to="/pots">To the pots</Link>
            </Button>
          }
        >
          This station says when salt has gathered in a pot, and walks you through bringing it down.
          It needs a pot with at least one pour.
        </Teach>
      </>
    )
  }
  return (
    <>
      <PageHead
        title="Salt, nearest to its ceiling first"
        line="Predicted pour-through reading with its 80 % range, against each pot’s own ceiling; the year ahead at its present rhythm. µS/cm at 25 °C."
      />
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.35fr) minmax(0,1fr)" }}
        gap="4"
        alignItems="start"
      >
        <Flex direction="column" gap="4" minW="0">
          <Card p="2">
            <YearAxis today={page.today} />
            {page.pots.slice(0, all ? undefined : FIRST).map((p) => (
              <StationRow
                key={p.row.id}
                pot={p}
                today={page.today}
                chosen={p.row.id === pot.row.id}
                onChoose={() => setChosen(p.row.id)}
              />
            ))}
            {page.pots.length > FIRST && (
              <Button variant="outline" minH="44px" mt="2" onClick={() => setAll(!all)}>
                {all ? "Show fewer" : `Show all ${page.pots.length}`}
              </Button>
            )}
          </Card>
          <FlushRoundCard />
          <RinseCalendar today={page.today} />
        </Flex>
        <Box minW="0">
          <ChosenPot key={pot.row.id} pot={pot} today={page.today} />
        </Box>
      </Grid>
    </>
  )
}
