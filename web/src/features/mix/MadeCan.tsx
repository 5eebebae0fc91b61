import { Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { metersQuery } from "../../api/waterQueries"
import { PourPanel } from "../pots/PourPanel"
import { Rescue } from "./Rescue"
import { SelectField, TextField } from "../../ui/fields"
import { Card, PageHead } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { useEntryForm } from "../../ui/useEntryForm"

type Props = { made: Schemas["BatchOut"]; potIds: number[]; page: Schemas["MixPage"]; onBack: () => void }

/** The can is made: read the pen, be told, pour. */
export function MadeCan({ made, potIds, page, onBack }: Props) {
  const [judged, setJudged] = useState<Schemas["Judged"] | null>(null)
  const batch = judged?.batch ?? made
  const sentence = judged?.check.sentence ?? made.verdict_sentence
  return (
    <>
      <PageHead title={`Can: ${batch.name}`} line={`${batch.volume_L} L, made ${batch.made_on}${batch.recipe_version !== null ? `, ${batch.recipe}, version ${batch.recipe_version}` : ""}. Expect ${Math.round(batch.predicted_low_uS_cm)} to ${Math.round(batch.predicted_high_uS_cm)} µS/cm.`}>
        <Button variant="outline" minH="44px" data-back onClick={onBack}>Another can</Button>
      </PageHead>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1.4fr)" }} gap="4" alignItems="start">
        <Card title="Read the pen">
          <Text mb="2">Predicted <Quantity label="Predicted EC" kind="ec" value={batch.predicted_uS_cm} />{batch.measured_uS_cm !== null && <>, measured <b><Quantity label="Measured EC" kind="ec" value={batch.measured_uS_cm} working={judged ? { kind: "here", working: judged.working } : undefined} /></b></>}.</Text>
          {sentence ? <Text role="status" fontSize="lg" fontWeight="semibold" color={batch.verdict === "fine" ? "state.good" : "state.stop"} mb="3">{sentence}</Text> : null}
          <PenForm key={judged ? "again" : "first"} batchId={batch.id} today={page.today} onJudged={setJudged} again={batch.measured_uS_cm !== null} />
          {batch.dose_g_L > 0 && batch.verdict !== "" && (batch.verdict !== "fine" || batch.age_days > 0) && <Rescue key={batch.measured_uS_cm} batch={batch} reading={batch.age_days > 0 && !judged ? null : batch.measured_uS_cm} />}
        </Card>
        <PourPanel pots={page.pots} chosen={potIds} today={page.today} source={{ kind: "batch", id: batch.id, name: batch.name }} />
      </Grid>
    </>
  )
}

type Values = { value: string; meter_id: string; temperature: string; unit: "µS/cm" | "mS/cm" | "ppm"; scale: "0.5" | "0.64" | "0.7" | "unknown" }

function PenForm({ batchId, today, onJudged, again }: { batchId: number; today: string; onJudged: (j: Schemas["Judged"]) => void; again: boolean }) {
  const known = useQuery(metersQuery).data?.meters
  const meters = known ?? []
  const entry = useEntryForm<Values, Schemas["Judged"]>(
    { value: "", meter_id: "", temperature: "", unit: "µS/cm", scale: "unknown" },
    (v, key) => {
      const meter = meters.find((m) => String(m.id) === v.meter_id)
      return answer(client.POST("/api/batches/{batch_id}/reading", { params: { ...keyed(key), path: { batch_id: batchId } }, body: { on: today, value: v.value, unit: meter?.unit ?? v.unit, scale: meter ? meter.scale : v.unit === "ppm" ? v.scale : null, meter_id: meter?.id ?? null, compensated: meter?.compensation !== "none", temperature: v.temperature, temperature_unit: "°C", note: "" } }))
    },
    onJudged,
  )
  const [unit, meterId] = entry.form.watch(["unit", "meter_id"])
  return (
    <form onSubmit={(e) => void entry.submit(e)} noValidate>
      <Grid templateColumns="1fr 1fr" gap="3">
        <TextField form={entry.form} name="value" label="Measured EC" numeric />
        {meterId === "" && <SelectField form={entry.form} name="unit" label="Unit" choices={["µS/cm", "mS/cm", "ppm"]} />}
        {(known === undefined || known.length > 0) && <SelectField form={entry.form} name="meter_id" label="Meter" choices={[{ value: "", label: "not named" }, ...meters.map((m) => ({ value: String(m.id), label: m.name }))]} />}
        {meters.find((m) => String(m.id) === meterId)?.compensation === "none" && <TextField form={entry.form} name="temperature" label="Temperature of the can" unit="°C" numeric />}
        {meterId === "" && unit === "ppm" && <SelectField form={entry.form} name="scale" label="ppm scale" choices={[{ value: "unknown", label: "not known" }, "0.5", "0.64", "0.7"]} />}
      </Grid>
      {entry.problem && <Text role="alert" color="state.stop" mt="2">{entry.problem}</Text>}
      <Button type="submit" mt="3" minH="48px" variant={again ? "outline" : "solid"} loading={entry.pending}>{again ? "Judge again" : "Judge it"}</Button>
    </form>
  )
}
