import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { useParams } from "react-router"
import type { Schemas } from "../../api/client"
import { potQuery, waterQuery } from "../../api/queries"
import { day, figure } from "../../ui/format"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { FlushCard } from "../flush/FlushCard"
import { CareCard } from "./care/CareCard"
import { DecideForm } from "./care/DecideForm"
import { Holds } from "./care/Holds"
import { ChangePot } from "./collection/ChangePot"
import { LogList } from "./LogList"
import { LookForm } from "./LookForm"
import { PhaseForm } from "./PhaseForm"
import { DiedForm } from "./plants/DiedForm"
import { PlantsCard } from "./plants/PlantsCard"
import { PourPanel } from "./PourPanel"
import { Strata } from "./strata/Strata"

/** One pot: cause above, effect below, on one time axis. */
export function PotScreen() {
  const id = Number(useParams().id)
  return <Loaded query={useQuery(potQuery(id))}>{(page) => <PotView key={id} page={page} />}</Loaded>
}

function PotView({ page }: { page: Schemas["PotPage"] }) {
  const [open, setOpen] = useState<"look" | "pour" | "phase" | "change" | "archive" | "decide" | null>(null)
  const { row, root_zone: z } = page
  const water = useQuery(waterQuery).data?.waters.find((w) => w.ec25_uS_cm !== null)
  const facts = [`${figure(page.pot_volume_L)} L ${page.medium}`, row.drainage === "drains" ? null : row.drainage, `${row.place}${row.spot ? `, ${row.spot}` : ""}`, row.phase, page.hazard].filter(Boolean).join(" · ")
  return (
    <>
      <PageHead title={`${row.code} ${row.name}`} line={facts}>
        <Button variant="outline" minH="44px" onClick={() => setOpen("archive")}>Archive</Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("change")}>Change</Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("phase")}>Phase</Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("decide")}>Decide</Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("pour")}>Log a pour</Button>
        <Button data-new minH="44px" onClick={() => setOpen("look")}>Log a look</Button>
      </PageHead>
      <Holds potId={row.id} holds={row.holds} />
      {open === "change" && <ChangePot page={page} onClose={() => setOpen(null)} />}
      {open === "archive" && <DiedForm page={page} onClose={() => setOpen(null)} />}
      {open === "look" && <LookForm potId={row.id} last={page.looks.at(-1)} today={page.today} onClose={() => setOpen(null)} />}
      {open === "decide" && <DecideForm potId={row.id} today={page.today} onClose={() => setOpen(null)} />}
      {open === "phase" && <PhaseForm potId={row.id} phase={row.phase} today={page.today} onClose={() => setOpen(null)} />}
      {open === "pour" && (
        <Box mb="4">
          {water ? <PourPanel pots={[{ id: row.id, code: row.code, name: row.name, volume_L: row.volume_L }]} chosen={[row.id]} today={page.today} source={{ kind: "water", id: water.id, name: water.name }} /> : <Text>Enter a water’s reading first.</Text>}
          {water && <Text fontSize="sm" color="fg.muted" mt="1">Pours {water.name}, nothing added. A feed is poured from its can at the Mix station.</Text>}
          <Button variant="outline" mt="2" data-back onClick={() => setOpen(null)}>Close</Button>
        </Box>
      )}
      <Strata page={page} />
      <Grid templateColumns={{ base: "minmax(0,1fr)", md: "repeat(2, minmax(0,1fr))", xl: "minmax(0,1fr) minmax(0,1.5fr) minmax(0,1.1fr)" }} gap="4" mt="4" alignItems="start">
        <Flex direction="column" gap="4">
          <Card title="Root zone today">
            <Flex direction="column" gap="1">
              <Text>In the pot: <b><Quantity label="Root zone" kind="ec" value={z.root_zone_uS_cm} low={z.root_zone_low_uS_cm} high={z.root_zone_high_uS_cm} working={{ kind: "here", working: page.working }} /></b></Text>
              <Text>A pour-through would read: <b><Quantity label="Predicted reading" kind="ec" value={z.reading_uS_cm} low={z.reading_low_uS_cm} high={z.reading_high_uS_cm} working={{ kind: "here", working: page.working }} /></b></Text>
              <Text>Comfortable {row.ideal_low_uS_cm} to {row.ideal_high_uS_cm}, ceiling {row.ceiling_uS_cm} µS/cm: readings, confidence {page.confidence}.</Text>
              <Text fontWeight="semibold">{z.crossing.sentence}</Text>
              {z.observations.length === 0 && <Text color="fg.muted">No runoff reading yet: the range is wide.</Text>}
              {z.observations.at(-1) && <Text color="fg.muted">Last runoff {figure(Math.round(z.observations.at(-1)?.runoff_ec ?? 0), 6)} on {day(z.observations.at(-1)?.on ?? page.today, page.today)}, expected {figure(Math.round(z.observations.at(-1)?.expected_runoff_ec ?? 0), 6)}; taken in.</Text>}
            </Flex>
          </Card>
          <FlushCard potId={row.id} code={row.code} idealHigh={row.ideal_high_uS_cm} />
        </Flex>
        <CareCard page={page} />
        <Flex direction="column" gap="4" gridColumn={{ md: "1 / -1", xl: "auto" }}>
          <PlantsCard page={page} />
          <LogList page={page} />
        </Flex>
      </Grid>
    </>
  )
}
