import { ecScale } from "../../ui/format"
import { Box, Button, Flex, Grid } from "@chakra-ui/react"
import { useInfiniteQuery, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { MoreRows, type Windowed } from "../../ui/MoreRows"
import { Card, Loaded, PageHead, Teach } from "../../ui/Page"
import { ChosenPot } from "./ChosenPot"
import { FlushRoundCard } from "./FlushRoundCard"
import { flushStationQuery, type WhatIf, yearsQuery } from "./queries"
import { RinseCalendar } from "./RinseCalendar"
import { SchoolsTogetherCard } from "./SchoolsTogetherCard"
import { StationRow } from "./StationRow"
import { WhatIfBar } from "./WhatIfBar"
import { YearAxis } from "./YearAxis"

/** Every pot by how near its salt is to its ceiling, its year ahead, and what would bring it down. */
export function Screen() {
  const [kind, setKind] = useState("")
  const query = useInfiniteQuery(flushStationQuery(kind))
  return (
    <Loaded query={query}>
      {({ pages }) => {
        const [first] = pages
        const pots = pages.flatMap((p) => p.pots)
        return first && <Station page={first} {...{ pots, kind, setKind, query }} />
      }}
    </Loaded>
  )
}

type Shown = {
  page: Schemas["FlushPage"]
  pots: Schemas["FlushRow"][]
  kind: string
  setKind: (kind: string) => void
  query: Windowed
}

function Station({ page, pots, kind, setKind, query }: Shown) {
  const [chosen, setChosen] = useState<number | null>(null)
  const [change, setChange] = useState<WhatIf>("as it is")
  const rhythms = pots.some((p) => p.ahead) // one pour alone has no year ahead
  const ids = pots.map((p) => p.row.id).join(",")
  const asked = useQuery({ ...yearsQuery(change, kind, ids), enabled: rhythms })
  const years = new Map(asked.data?.years.map((y) => [y.pot_id, y.ahead]))
  const pot = pots.find((p) => p.row.id === chosen) ?? pots[0]
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
                kinds={page.kinds}
                kind={kind}
                change={change}
                years={asked}
                onKind={setKind}
                onChange={setChange}
              />
            )}
            <YearAxis today={page.today} />
            {pots.map((p) => (
              <StationRow
                key={p.row.id}
                pot={p}
                ahead={years.get(p.row.id) ?? p.ahead}
                today={page.today}
                chosen={p.row.id === pot.row.id}
                onChoose={() => setChosen(p.row.id)}
              />
            ))}
            <MoreRows query={query} left={page.total - pots.length} />
          </Card>
          <SchoolsTogetherCard
            kind={kind}
            of={page.kinds.find((k) => k.id === kind)?.name ?? "every pot"}
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
