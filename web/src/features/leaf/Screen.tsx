import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useNavigate } from "react-router"
import type { Schemas } from "../../api/client"
import { Choice } from "../../ui/Choice"
import { Loaded, PageHead, Teach } from "../../ui/Page"
import { useWidth } from "../../ui/useWidth"
import { axisOf, spanOf } from "./axis"
import { LaidCard } from "./LaidCard"
import { Legend } from "./Legend"
import { LineGroup } from "./LineGroup"
import { Months } from "./Months"
import { COLUMNS } from "./PlantRow"
import { LeafTable } from "./LeafTable"
import { type Asked, leafStationQuery, type PlantLine } from "./queries"
import { saysOfLeaf } from "./says"
import { SuppliersCard } from "./SuppliersCard"

/** A line a plant: what its leaves answer, those to look at first. */
export function Screen() {
  const [asked, setAsked] = useState<Asked>({ by: "question", show: "all" })
  return (
    <Loaded query={useQuery(leafStationQuery(asked))}>
      {(page) => <Station page={page} asked={asked} onAsk={setAsked} />}
    </Loaded>
  )
}

type Shown = { page: Schemas["LeafPage"]; asked: Asked; onAsk: (asked: Asked) => void }

function Station({ page, asked, onAsk }: Shown) {
  const [months, setMonths] = useState(9)
  const [folded, setFolded] = useState<Record<string, boolean>>({})
  const [said, setSaid] = useState("")
  const go = useNavigate()
  const [ref, width] = useWidth<HTMLDivElement>(660)
  const { first, groups } = page
  const plants = groups.flatMap((g) => g.plants)
  const x = axisOf(spanOf(page.today, page.since, months), width)
  if (!first) {
    return (
      <>
        <PageHead title="What the leaves answer" line="A line grows here for each plant." />
        <Teach
          action={
            <Button asChild>
              <Link to="/pots">To the pots</Link>
            </Button>
          }
        >
          A line grows here for each plant once a leaf is measured twice. It needs a pot first.
        </Teach>
      </>
    )
  }
  const look = (p: PlantLine) => void go(`/look/${p.pot_id}`)
  return (
    <>
      <PageHead
        title="What the leaves answer"
        line="A plant is a line, a leaf stands where it opened, as tall as it is against that plant’s usual. Old scars do not count."
      >
        <Button asChild data-new minH="44px">
          <Link to="/look">Look at {first.code}</Link>
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to="/changes">Every change</Link>
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to="/trials">Trials</Link>
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to="/rate">Rate photos</Link>
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to="/look/desk">Looks at the desk</Link>
        </Button>
      </PageHead>
      <Box bg="bg.panel" borderWidth="1px" borderRadius="lg" overflow="hidden">
        <Flex px="3" py="2" gap="2" wrap="wrap" align="center" justify="space-between">
          <Text fontSize="sm" flex="1 1 260px" aria-live="polite">
            {said || `${page.total} plants. Point at a leaf to read it.`}
          </Text>
          <Choice
            label="Group by"
            value={asked.by ?? ""}
            onValue={(v) => onAsk({ ...asked, by: v as Asked["by"] })}
            choices={[
              { value: "question", label: "by question" },
              { value: "kind", label: "by kind" },
              { value: "place", label: "by place" },
              { value: "school", label: "by school" },
            ]}
          />
          <Choice
            label="Show"
            value={asked.show ?? ""}
            onValue={(v) => onAsk({ ...asked, show: v as Asked["show"] })}
            choices={[
              { value: "all", label: "all plants" },
              { value: "marked", label: "with a mark" },
              { value: "being judged", label: "being judged" },
              { value: "look today", label: "to look at" },
            ]}
          />
          <Choice
            label="How far back"
            value={String(months)}
            onValue={(v) => setMonths(Number(v))}
            choices={[4, 9, 14].map((m) => ({ value: String(m), label: `${m} months` }))}
          />
        </Flex>
        <Grid templateColumns={COLUMNS} columnGap="3" px="3">
          <Box gridColumn={{ base: "1 / -1", lg: "2" }} ref={ref} minW="0">
            <Months x={x} width={width} today={page.today} />
          </Box>
        </Grid>
        {groups.map((g) => (
          <LineGroup
            key={g.key}
            group={g}
            asked={asked}
            open={!(folded[g.key] ?? g.folds)}
            today={page.today}
            x={x}
            width={width}
            onFold={() => setFolded({ ...folded, [g.key]: !(folded[g.key] ?? g.folds) })}
            onLeaf={(p, i) => setSaid(i === null ? "" : saysOfLeaf(p, i, page.today))}
            onLook={look}
          />
        ))}
        <Legend />
      </Box>
      <LeafTable plants={plants} />
      <LaidCard />
      <SuppliersCard />
    </>
  )
}
