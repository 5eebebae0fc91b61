import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { membraneQuery } from "../../../api/waterQueries"
import { Facts } from "../../../ui/Facts"
import { EntrySheet, TextField } from "../../../ui/fields"
import { day, figure } from "../../../ui/format"
import { Loaded } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import { useEntryForm } from "../../../ui/useEntryForm"
import { LineChart } from "../LineChart"

/** Rejection from feed and permeate read together, where it goes, what it wastes. */
export function MembraneTool({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const units = page.waters.filter((w) => w.kind === "permeate")
  const unit = units.find((w) => w.id === chosen) ?? units[0]
  const query = useQuery({ ...membraneQuery(unit?.id ?? 0), enabled: unit !== undefined })
  const [entering, setEntering] = useState(false)
  if (!unit) return <Text>Add your reverse-osmosis unit as a source, and read its feed and its permeate together now and then: this tool tells when the membrane tires.</Text>
  return (
    <Loaded query={query}>
      {(m) => (
        <>
          {entering ? <PairForm unit={unit} floor={m.floor_pct} today={page.today} onClose={() => setEntering(false)} /> : <Button mb="3" onClick={() => setEntering(true)}>Enter a pair</Button>}
          {m.answer ? <Trend m={m} answer={m.answer} today={page.today} /> : <Text>No pair yet for {unit.name}. Read the feed and the permeate on the same day.</Text>}
        </>
      )}
    </Loaded>
  )
}

function Trend({ m, answer: a, today }: { m: Schemas["MembranePage"]; answer: Schemas["Computed_MembraneTrend_"]; today: string }) {
  const r = a.result
  const here = { kind: "here" as const, working: a.working }
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1fr)" }} gap="6">
      <Box>
        <Text role={r.alarm ? "alert" : undefined} fontWeight="semibold" color={r.alarm ? "state.stop" : undefined}>{r.sentence}</Text>
        <Facts rows={[
          ["Rejection now", <Quantity key="n" label="Rejection now" value={r.now_pct} unit="%" working={here} />],
          ["Trend, with its 95 % range", <Quantity key="t" label="Trend" value={r.trend_pct_month} low={r.trend_low_pct_month} high={r.trend_high_pct_month} unit="% a month" working={here} none="three days with a pair are needed" />],
          ["Below your floor of " + figure(r.floor_pct) + " %", r.below_floor_on ? `about ${day(r.below_floor_on, today)}` : "no date in sight"],
          ["Earliest and latest", `${r.below_floor_earliest ? day(r.below_floor_earliest, today) : "none"} to ${r.below_floor_latest ? day(r.below_floor_latest, today) : "not for years"}`],
          ["Recovery", <Quantity key="r" label="Recovery" value={r.recovery_pct} unit="%" working={here} none="volumes not measured" />],
          ["Concentrate for each litre", <Quantity key="c" label="Concentrate for each litre" value={r.concentrate_L_per_L} unit="L" working={here} none="volumes not measured" />],
          ["Concentrate reads", <Quantity key="e" label="EC of the concentrate" kind="ec" value={r.concentrate_uS_cm} working={here} none="volumes not measured" />],
        ]} />
      </Box>
      <Box>
        <LineChart points={r.rejections.map((p) => ({ on: p.on, value: p.rejection_pct }))} today={today} unit="% rejected" limit={r.floor_pct} />
        <Flex direction="column" fontSize="sm" mt="2">
          {m.pairs.slice(0, 4).map((p) => <Text key={p.id} py="1" borderTopWidth="1px">{day(p.on, today)}: feed {figure(p.feed_uS_cm, 4)}, permeate {figure(p.permeate_uS_cm)} µS/cm</Text>)}
        </Flex>
      </Box>
    </Grid>
  )
}

type Values = { on: string; feed: string; permeate: string; permeate_L: string; concentrate_L: string }

function PairForm({ unit, floor, today, onClose }: { unit: Schemas["WaterOut"]; floor: number; today: string; onClose: () => void }) {
  const entry = useEntryForm<Values, Schemas["MembranePage"]>(
    { on: today, feed: "", permeate: "", permeate_L: "", concentrate_L: "" },
    (v, key) => answer(client.POST("/api/water/membrane/{water_id}/pairs", { params: { ...keyed(key), path: { water_id: unit.id } }, body: v })),
    onClose,
  )
  const floorEntry = useEntryForm<{ floor_pct: string }, Schemas["Stored"]>(
    { floor_pct: String(floor) },
    (v, key) => answer(client.PUT("/api/water/membrane/{water_id}/floor", { params: { ...keyed(key), path: { water_id: unit.id } }, body: v })),
    onClose,
  )
  return (
    <>
      <EntrySheet entry={entry} title={`Feed and permeate of ${unit.name}`} submit="Keep the pair" onCancel={onClose}>
        <TextField form={entry.form} name="feed" label="Feed" unit="µS/cm" numeric />
        <TextField form={entry.form} name="permeate" label="Permeate" unit="µS/cm" numeric hint="Same pen, same temperature, after a minute’s run." />
        <TextField form={entry.form} name="permeate_L" label="Permeate caught" unit="L" numeric hint="Optional, of one run." />
        <TextField form={entry.form} name="concentrate_L" label="Concentrate caught" unit="L" numeric hint="Optional, of the same run." />
        <TextField form={entry.form} name="on" label="Date" type="date" />
      </EntrySheet>
      <EntrySheet entry={floorEntry} title="Your floor" submit="Set the floor">
        <TextField form={floorEntry.form} name="floor_pct" label="Replace or inspect below" unit="%" numeric />
      </EntrySheet>
    </>
  )
}
