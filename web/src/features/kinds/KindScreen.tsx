import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useParams } from "react-router"
import { Facts } from "../../ui/Facts"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { Rail } from "../../ui/Rail"
import { useUndo } from "../../ui/useUndo"
import { type KindData, loadKind } from "./loadKind"
import { RuleForm } from "../../ui/RuleForm"
import { OwnFigures } from "./OwnFigures"

const LEVELS = ["none known", "low", "moderate", "high"]
const RESTS: Record<string, string> = { none: "No rest", plain: "Rests with plain water", dry: "Rests dry", summer: "Rests dry in summer" }
const ABOVE: Record<string, string> = { none_known: "none known, which is no promise", unknown: "unknown, which never means safe" }

const kindQuery = (id: string) => queryOptions({ queryKey: ["kinds", "one", id], queryFn: () => loadKind(id) })

const pair = (range: number[] | null | undefined): [number, number] | null => (range?.[0] === undefined || range[1] === undefined ? null : [range[0], range[1]])

/** A kind on one screen. */
export function KindScreen() {
  const id = useParams().id ?? ""
  return <Loaded query={useQuery(kindQuery(id))}>{(page) => <Kind page={page} />}</Loaded>
}

function Kind({ page }: { page: KindData }) {
  const p = page.profile
  const [editing, setEditing] = useState<"figures" | "kind" | "group" | null>(null)
  const close = () => setEditing(null)
  const undo = useUndo()
  return (
    <>
      <PageHead title={p.name} line={`${p.words.watering} Figures: ${page.source}. Confidence ${p.confidence}.`}>
        {page.own_id && <Button variant="outline" minH="44px" onClick={() => page.own_id && undo("own figures", page.own_id)}>Back to the shipped figures</Button>}
        <Button variant="outline" minH="44px" onClick={() => setEditing("kind")}>Rule of this kind</Button>
        <Button variant="outline" minH="44px" onClick={() => setEditing("group")}>Rule of its group</Button>
        <Button data-new minH="44px" onClick={() => setEditing("figures")}>Use my own figures</Button>
      </PageHead>
      {page.own_id && <Text mb="3"><b>These are your figures.</b> {page.own_word}</Text>}
      {editing === "figures" && <OwnFigures page={page} onClose={close} />}
      {editing === "kind" && <RuleForm scope="kind" ruleKey={p.id} of={p.name} onClose={close} />}
      {editing === "group" && <RuleForm scope="group" ruleKey={p.group} of={`the group “${p.group}”`} onClose={close} />}
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.4fr) minmax(0,1fr)" }} gap="4" alignItems="start">
        <Flex direction="column" gap="4">
          <Bands page={page} />
          <Rest rest={p.rest} />
          {(p.words.note || p.words.disputed) && (
            <Card title="Worth knowing">
              {p.words.note && <Text>{p.words.note}</Text>}
              {p.words.disputed && <Text mt="1"><b>Growers differ:</b> {p.words.disputed}</Text>}
            </Card>
          )}
          {(p.opt_in ?? []).length > 0 && (
            <Card title="Only if you choose it">
              {(p.opt_in ?? []).map((o) => <Text key={o.route}><b>{o.route}</b>, up to {o.n_max_mg_L} mg/L N and {o.ec_ceiling_uS_cm} µS/cm. {o.note}</Text>)}
              <Text fontSize="sm" color="fg.muted">Choose a school that feeds this way at the pot. Never by default.</Text>
            </Card>
          )}
        </Flex>
        <Flex direction="column" gap="4">
          <Card title="Limits beside salt">
            <Facts rows={[
              ["Alkalinity, at most", `${p.source_water.alkalinity_ceiling_mg_L} mg/L as CaCO3`],
              ["pH of the root zone", p.root_zone.pH.join(" to ")],
              ...(["fluoride", "chlorine", "sodium", "boron"] as const).map((k) => [`Sensitive to ${k}`, LEVELS[p.sensitivity[k]]] as const),
              ["Day", `${p.climate.day_C.join(" to ")} °C`], ["Night", `${p.climate.night_C.join(" to ")} °C`], ["Never below", `${p.climate.minimum_C} °C`],
              p.climate.humidity_pct ? ["Humidity", `${p.climate.humidity_pct.join(" to ")} %`] : null,
            ]} />
          </Card>
          <Card title="Flush and answer">
            <Text>{p.flush.how}</Text>
            <Facts rows={[
              p.flush.cadence_days ? ["By habit each", `${p.flush.cadence_days.join(" to ")} days`] : null,
              ["Answers to hunger in", `${p.lag_days.underfeeding.join(" to ")} days`], ["Answers to salt in", `${p.lag_days.overfeeding.join(" to ")} days`],
            ]} />
            <Text mt="2" fontSize="sm">{p.lag_days.first_sign}</Text>
          </Card>
          <Card title="Hazard">
            <Text>Pets: {ABOVE[p.hazard.pets] ?? p.hazard.pets}. People: {ABOVE[p.hazard.people] ?? p.hazard.people}.{p.hazard.agent && ` Because of ${p.hazard.agent}.`}</Text>
            <Text fontSize="sm" color="fg.muted">Confidence {p.hazard.confidence}. A doctor, a vet or a poison service outranks this page.</Text>
          </Card>
          {page.pots.length > 0 && <Card title="Here"><Flex gap="3" wrap="wrap">{page.pots.map((pot, i) => <Link key={pot.id} to={`/pots/${pot.id}`}>{page.codes[i]}</Link>)}</Flex></Card>}
        </Flex>
      </Grid>
    </>
  )
}

function Bands({ page }: { page: KindData }) {
  const { source_water: w, root_zone: z, phases, feeding } = page.profile
  const fed = Object.entries(phases).filter(([, f]) => f.feed)
  const unfed = Object.entries(phases).filter(([, f]) => !f.feed).map(([name]) => name)
  return (
    <Card title="On the rail, µS/cm at 25 °C">
      <Band name="Water it may drink" says={`Comfortable up to ${w.ec_ideal_max_uS_cm}, at most ${w.ec_max_uS_cm}; ${w.ec_short_term_max_uS_cm} for a few weeks. Confidence ${w.confidence}.`} band={[10, w.ec_ideal_max_uS_cm]} ceiling={w.ec_max_uS_cm} />
      {fed.map(([name, f]) => (
        <Band key={name} name={`Feed, ${name}`} says={`${f.n_ideal_mg_L.join(" to ")} mg/L N${f.ec_ideal_uS_cm ? `, ${f.ec_ideal_uS_cm.join(" to ")} µS/cm` : ""}${f.ec_ceiling_uS_cm ? `, at most ${f.ec_ceiling_uS_cm}` : ""}${f.interval_days ? `, each ${f.interval_days.join(" to ")} days` : ""}.`} band={pair(f.ec_ideal_uS_cm)} ceiling={f.ec_ceiling_uS_cm} />
      ))}
      {unfed.length > 0 && <Band name="No feed" says={fed.length === 0 ? "In no phase by default." : `While ${unfed.join(" or ")}.`} />}
      <Band name={page.profile.method === "soak" ? "Water it is soaked in" : "Reading of the root zone"} says={`Comfortable ${z.ec_ideal_uS_cm.join(" to ")}, ceiling ${z.ec_ceiling_uS_cm}. Confidence ${z.confidence}.`} band={pair(z.ec_ideal_uS_cm)} ceiling={z.ec_ceiling_uS_cm} />
      <Text fontSize="sm" color="fg.muted">Fed by {feeding.routes.map((r) => (r === "none" ? "nothing at all" : r)).join(", or ")}. EC of feeds is told for a water of {feeding.reference_source_uS_cm} µS/cm; confidence {feeding.confidence}.</Text>
    </Card>
  )
}

function Band({ name, says, band, ceiling }: { name: string; says: string; band?: [number, number] | null; ceiling?: number | null }) {
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", sm: "minmax(0,1fr) minmax(0,1.1fr)" }} gap="3" alignItems="center" py="1.5" borderTopWidth="1px" _first={{ borderTopWidth: 0 }}>
      <Box><Text fontWeight="medium">{name}</Text><Text fontSize="sm" color="fg.muted">{says}</Text></Box>
      {band && <Rail label={`${name}: ${says}`} band={band} ceiling={ceiling} />}
    </Grid>
  )
}

const ago = (days = 0) => `${Math.abs(days)} days ${days < 0 ? "before" : "after"}`

function Rest({ rest }: { rest: KindData["profile"]["rest"] }) {
  return (
    <Card title={`${RESTS[rest.kind] ?? rest.kind}${rest.optional ? ", if you wish" : ""}`}>
      <Text>{rest.enter}</Text>
      {rest.kind !== "none" && <Text mt="1"><b>Ends with:</b> {rest.restart}.{rest.root_gate_cm ? ` Roots of ${rest.root_gate_cm} cm first.` : ""}</Text>}
      {rest.window_days && <Text fontSize="sm" color="fg.muted" mt="1">By the calendar from {ago(rest.window_days[0])} to {ago(rest.window_days[1])} the shortest day, on either hemisphere.{rest.needs_cold ? " Lamps cannot replace its cold." : ""}</Text>}
    </Card>
  )
}
