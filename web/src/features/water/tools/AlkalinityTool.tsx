import { Box, Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useSearchParams } from "react-router"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { acidsQuery } from "../../../api/waterQueries"
import { Facts } from "../../../ui/Facts"
import { SelectField, TextField } from "../../../ui/fields"
import { Loaded } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import { usePress } from "../../../ui/useEntryForm"
import { useLiveForm } from "../../../ui/useLiveForm"

/** Blending first; acid only after the safety lines were read once. */
export function AlkalinityTool({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const [, setParams] = useSearchParams()
  const query = useQuery(acidsQuery)
  return (
    <>
      <Text mb="2"><b>Blend first.</b> Rain or permeate lowers alkalinity safely, and salt with it. <Button size="sm" variant="outline" onClick={() => setParams({ tool: "blend", aim: "alkalinity" }, { replace: true, preventScrollReset: true })}>Blend to an alkalinity</Button></Text>
      <Loaded query={query}>{(acids) => (acids.read_on === null ? <Locked acids={acids} /> : <Acid page={page} chosen={chosen} acids={acids} />)}</Loaded>
    </>
  )
}

function Safety({ lines }: { lines: string[] }) {
  return (
    <Box as="ul" pl="5" my="2" listStyleType="disc" fontSize="sm" aria-label="Safety with acids">
      {lines.map((line) => <li key={line}>{line}</li>)}
    </Box>
  )
}

function Locked({ acids }: { acids: Schemas["AcidsPage"] }) {
  const confirm = usePress<undefined, Schemas["Stored"]>((_, key) => answer(client.POST("/api/water/acids/read", { params: keyed(key) })))
  return (
    <Box borderWidth="1px" borderColor="border.strong" borderRadius="md" p="3">
      <Text fontWeight="semibold">Acids are locked until you have read this once.</Text>
      <Safety lines={acids.safety} />
      <Button loading={confirm.isPending} onClick={() => confirm.mutate(undefined)}>I have read this</Button>
      {confirm.isError && <Text role="alert" color="state.stop">{confirm.error.message}</Text>}
    </Box>
  )
}

type Values = { volume: string; acid: string; strength_pct: string; density_g_mL: string; target: "alkalinity" | "pH"; value: string }

function Acid({ page, chosen, acids }: { page: Schemas["WaterPage"]; chosen: number; acids: Schemas["AcidsPage"] }) {
  const volumeUnit = useSettings()?.volume_unit ?? "L"
  const water = page.waters.find((w) => w.id === chosen)
  const { form, values, answer: found, problem } = useLiveForm<Values, Schemas["Computed_Acidified_"]>(
    `acid-${chosen}-${volumeUnit}`,
    { volume: "10", acid: "citric", strength_pct: "", density_g_mL: "", target: "alkalinity", value: "60" },
    (v) => answer(client.POST("/api/water/acidify", { body: { ...v, volume_unit: volumeUnit, water_id: chosen } })),
    (v) => v.volume !== "" && v.value !== "",
  )
  const acid = acids.acids.find((a) => a.id === values.acid)
  const r = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1fr)" }} gap="6">
      <Box>
        <Text mb="2">Acid for {water?.name}.</Text>
        <Grid templateColumns="repeat(auto-fit, minmax(150px, 1fr))" gap="3">
          <TextField form={form} name="volume" label="Volume" unit={volumeUnit} numeric />
          <SelectField form={form} name="acid" label="Acid" choices={acids.acids.map((a) => ({ value: a.id, label: a.household ? a.label : `${a.label} (not for the household)` }))} />
          {acid?.state === "liquid" && <TextField form={form} name="strength_pct" label="Strength on the bottle" unit="% by weight" numeric hint={`Known: ${acid.strengths_pct.join(", ")} %.`} />}
          {acid?.state === "liquid" && <TextField form={form} name="density_g_mL" label="Density on the bottle" unit="g/mL" numeric hint="Empty for a known strength." />}
          <SelectField form={form} name="target" label="Bring down" choices={[{ value: "alkalinity", label: "alkalinity" }, { value: "pH", label: "pH, right after mixing" }]} />
          <TextField form={form} name="value" label={values.target === "pH" ? "To pH" : "To alkalinity, mg/L CaCO3"} numeric />
        </Grid>
        <Safety lines={acids.safety} />
      </Box>
      <Box aria-live="polite">
        {problem && <Text role="alert" color="state.stop">{problem}</Text>}
        {r && found && (
          <>
            <Text fontSize="xl" fontWeight="semibold"><Quantity label="Acid" value={r.amount} unit={`${r.unit} ${acid?.label ?? ""}`} working={here} /></Text>
            <Text>Give <Quantity label="First portion" value={r.first_portion} unit={r.unit} working={here} /> first, stir, measure the alkalinity, then the rest.</Text>
            <Facts rows={[
              ["Alkalinity after", <Quantity key="a" label="Alkalinity after" value={r.alkalinity_mg_L_CaCO3} unit="mg/L CaCO3" working={here} />],
              ["pH at once, in the can", <Quantity key="p" label="pH at once" value={r.pH_at_once} unit="" working={here} />],
              ["pH after airing", <Quantity key="q" label="pH after airing" value={r.pH_aired} unit="" working={here} />],
              ["EC after", <Quantity key="e" label="EC after" kind="ec" value={r.ec25_uS_cm} working={here} />],
              r.adds_mg_L > 0 ? [`It brings ${r.adds}`, <Quantity key="n" label="Nutrient added" value={r.adds_mg_L} unit="mg/L" working={here} />] : null,
              ["The same without acid", <Quantity key="w" label="Pure water instead" value={100 * r.pure_water_share} unit="% rain or permeate mixed in" working={here} />],
            ]} />
            {found.working.cautions.map((c) => <Text key={c} mt="1" fontSize="sm">{c}</Text>)}
          </>
        )}
      </Box>
    </Grid>
  )
}
