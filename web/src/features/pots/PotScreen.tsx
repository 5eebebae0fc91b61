import { Button, Flex, Grid } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useParams } from "react-router"
import type { Schemas } from "../../api/client"
import { potQuery } from "../../api/queries"
import { amount } from "../../ui/format"
import { Loaded, PageHead } from "../../ui/Page"
import { FlushHere } from "../flush/FlushHere"
import { AskCard } from "./AskCard"
import { CareCard } from "./care/CareCard"
import { DecideForm } from "./care/DecideForm"
import { Holds } from "./care/Holds"
import { ChangePot } from "./collection/ChangePot"
import { RepotForm } from "./collection/RepotForm"
import { LogList } from "./LogList"
import { PlanCard } from "./PlanCard"
import { PhaseForm } from "./PhaseForm"
import { DiedForm } from "./plants/DiedForm"
import { PlantsCard } from "./plants/PlantsCard"
import { Strata } from "./strata/Strata"
import { RootZoneCard } from "./RootZoneCard"
import { PourHere } from "./PourHere"

/** One pot: cause above, effect below, on one time axis. */
export function PotScreen() {
  const id = Number(useParams().id)
  return (
    <Loaded query={useQuery(potQuery(id))}>{(page) => <PotView key={id} page={page} />}</Loaded>
  )
}

type Form = "pour" | "phase" | "change" | "archive" | "decide" | "repot"

function PotView({ page }: { page: Schemas["PotPage"] }) {
  const [open, setOpen] = useState<Form | null>(null)
  // a form that was slow to save closes itself, not the one opened since
  const closing = (form: Form) => () => setOpen((now) => (now === form ? null : now))
  const { row } = page
  const facts = [
    `${amount(page.pot_volume_L, "L")} ${page.medium}`,
    row.drainage === "drains" ? null : row.drainage,
    `${row.place}${row.spot ? `, ${row.spot}` : ""}`,
    row.phase,
    page.hazard,
  ]
    .filter(Boolean)
    .join(" · ")
  return (
    <>
      <PageHead title={`${row.code} ${row.name}`} line={facts}>
        <Button data-new asChild minH="44px">
          <Link to={`/look/${row.id}?from=pot`}>Log a look</Link>
        </Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("pour")}>
          Log a pour
        </Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("decide")}>
          Decide
        </Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("phase")}>
          Phase
        </Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("repot")}>
          Repot
        </Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("change")}>
          Edit
        </Button>
        <Button variant="outline" minH="44px" asChild>
          <Link to={`/pots/${row.id}/passport`}>Passport</Link>
        </Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("archive")}>
          Archive
        </Button>
      </PageHead>
      <Holds potId={row.id} holds={row.holds} />
      {open === "change" && <ChangePot page={page} onClose={closing("change")} />}
      {open === "repot" && <RepotForm page={page} onClose={closing("repot")} />}
      {open === "archive" && <DiedForm page={page} onClose={closing("archive")} />}
      {open === "decide" && (
        <DecideForm potId={row.id} today={page.today} onClose={closing("decide")} />
      )}
      {open === "phase" && (
        <PhaseForm potId={row.id} phase={row.phase} today={page.today} onClose={closing("phase")} />
      )}
      {open === "pour" && <PourHere page={page} onClose={closing("pour")} />}
      <Strata page={page} />
      <Grid
        templateColumns={{
          base: "minmax(0,1fr)",
          md: "repeat(2, minmax(0,1fr))",
          xl: "minmax(0,1fr) minmax(0,1.5fr) minmax(0,1.1fr)",
        }}
        gap="4"
        mt="4"
        alignItems="start"
      >
        <Flex direction="column" gap="4">
          <RootZoneCard page={page} />
          <AskCard potId={row.id} />
          <FlushHere row={row} today={page.today} />
        </Flex>
        <Flex direction="column" gap="4">
          <CareCard page={page} />
          <PlanCard page={page} />
        </Flex>
        <Flex direction="column" gap="4" gridColumn={{ md: "1 / -1", xl: "auto" }}>
          <PlantsCard page={page} />
          <LogList page={page} />
        </Flex>
      </Grid>
    </>
  )
}
