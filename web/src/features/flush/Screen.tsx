import { ecScale } from "../../ui/format"
import { Box, Button, Flex, Grid } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { Card, Loaded, PageHead, Teach } from "../../ui/Page"
import { ChosenPot } from "./ChosenPot"
import { FlushRoundCard } from "./FlushRoundCard"
import { flushStationQuery, type WhatIf, yearsQuery } from "./queries"
import { RinseCalendar } from "./RinseCalendar"
import { SchoolsTogetherCard } from "./SchoolsTogetherCard"
import { StationRow } from "./StationRow"
import { WhatIfBar } from "./WhatIfBar"
import { YearAxis } from "./YearAxis"

const FIRST = 14

/** Every pot by how near its salt is to its ceiling, its year ahead, and what would bring it down. */
export function Screen() {
  return <Loaded query={useQuery(flushStationQuery)}>{(page) => <Station page={page} />}</Loaded>
}

function Station({ page }: { page: Schemas["FlushPage"] }) {
  const [chosen, setChosen] = useState<number | null>(null)
  const [all, setAll] = useState(false)
  const [kind, setKind] = useState("")
  const [change, setChange] = useState<WhatIf>("as it is")
  const rhythms = page.pots.some((p) => p.ahead) // one pour alone has no year ahead
  const years = useQuery({ ...yearsQuery(change, kind), enabled: rhythms }).data?.years
  const kinds = [...new Map(page.pots.map((p) => [p.row.profile_id, p.row.profile]))]
    .map(([id, name]) => ({ id, name }))
    .sort((a, b) => a.name.localeCompare(b.name))
  const shown = page.pots.filter((p) => kind === "" || p.row.profile_id === kind)
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
        line={[
          "Predicted pour-through reading with its 80 % range, against each pot’s own ceiling;",
          "the year ahead at its present rhythm, or with one change for all.",
          `${ecScale()}.`,
        ].join(" ")}
      />
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.35fr) minmax(0,1fr)" }}
        gap="4"
        alignItems="start"
      >
        <Flex direction="column" gap="4" minW="0">
          <Card p="2">
            {rhythms && (
              <WhatIfBar
                kinds={kinds}
                kind={kind}
                change={change}
                onKind={setKind}
                onChange={setChange}
              />
            )}
            <YearAxis today={page.today} />
            {shown.slice(0, all ? undefined : FIRST).map((p) => (
              <StationRow
                key={p.row.id}
                pot={p}
                ahead={years?.find((y) => y.pot_id === p.row.id)?.ahead ?? p.ahead}
                today={page.today}
                chosen={p.row.id === pot.row.id}
                onChoose={() => setChosen(p.row.id)}
              />
            ))}
            {shown.length > FIRST && (
              <Button variant="outline" minH="44px" mt="2" onClick={() => setAll(!all)}>
                {all ? "Show fewer" : `Show all ${shown.length}`}
              </Button>
            )}
          </Card>
          <SchoolsTogetherCard
            kind={kind}
            of={kinds.find((k) => k.id === kind)?.name ?? "every pot"}
          />
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
