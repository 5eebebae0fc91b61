import { Box, Grid, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { DataTable } from "../../../ui/DataTable"
import { Facts } from "../../../ui/Facts"
import { SelectField, TextField } from "../../../ui/fields"
import { Quantity } from "../../../ui/Quantity"
import { useLiveForm } from "../../../ui/useLiveForm"

type Values = { volume: string; free: string; total: string; supplier: "unknown" | "free chlorine" | "chloramine" }

/** Conditioner for tap water, and which other ways work on it. */
export function ChlorineTool({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const volumeUnit = useSettings()?.volume_unit ?? "L"
  const water = page.waters.find((w) => w.id === chosen)
  const tested = (quantity: string) => {
    const t = water?.tests.find((x) => x.quantity === quantity)
    return t ? String((t.low + t.high) / 2) : ""
  }
  const supplier = water?.disinfectant === "free chlorine" || water?.disinfectant === "chloramine" ? water.disinfectant : "unknown"
  const { form, answer: found, problem } = useLiveForm<Values, Schemas["Computed_Dechlorination_"]>(
    `chlorine-${chosen}-${volumeUnit}`,
    { volume: "10", free: tested("free chlorine"), total: tested("total chlorine"), supplier },
    (v) => answer(client.POST("/api/water/dechlorinate", { body: { ...v, volume_unit: volumeUnit } })),
    (v) => v.volume !== "",
  )
  const r = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1fr)" }} gap="6">
      <Grid templateColumns="repeat(auto-fit, minmax(150px, 1fr))" gap="3" alignContent="start">
        <TextField form={form} name="volume" label="Volume" unit={volumeUnit} numeric />
        <TextField form={form} name="free" label="Free chlorine" unit="mg/L" numeric hint="Empty if not tested." />
        <TextField form={form} name="total" label="Total chlorine" unit="mg/L" numeric hint="What it has over free is chloramine." />
        <SelectField form={form} name="supplier" label="The supplier uses" choices={[{ value: "unknown", label: "not known" }, "free chlorine", "chloramine"]} />
      </Grid>
      <Box aria-live="polite">
        {problem && <Text role="alert" color="state.stop">{problem}</Text>}
        {r && (
          <>
            <Text fontSize="xl" fontWeight="semibold"><Quantity label="Sodium thiosulfate" value={r.thiosulfate_mg} unit="mg thiosulfate crystals" working={here} /></Text>
            <Text>or <Quantity label="1 % stock" value={r.stock_mL} unit="mL of a fresh 1 % stock" working={here} />; wait {r.wait_minutes} minutes.</Text>
            <Text mt="2" p="2" bg="bg.inset" borderRadius="md">It takes out disinfectant only. No reading falls, and no hardness, alkalinity or sodium.</Text>
            <Facts rows={[
              ["Least that can do", <Quantity key="l" label="Least" value={r.least_mg} unit="mg" working={here} />],
              ["As anhydrous salt", <Quantity key="y" label="As anhydrous salt" value={r.anhydrous_mg} unit="mg" working={here} />],
              ["It adds to the reading", <Quantity key="e" label="EC added" kind="ec" value={r.ec_rise_uS_cm} working={here} />],
              ["Or ascorbic acid instead", <Quantity key="v" label="Ascorbic acid" value={r.ascorbic_mg} unit="mg" working={here} />],
              ["Sodium added", <Quantity key="s" label="Sodium added" value={r.sodium_rise_mg_L} unit="mg/L" working={here} />],
              r.ammonium_N_mg_L > 0 ? ["Ammonium left by chloramine", <Quantity key="n" label="Ammonium left" value={r.ammonium_N_mg_L} unit="mg/L N" working={here} />] : null,
            ]} />
            <Box mt="3">
              <DataTable label="Ways to take it out" head={["Way", "Works here", "How"]} minW="400px">
                {r.ways.map((w) => <tr key={w.name}><td>{w.name}</td><td><b>{w.works ? "yes" : "no"}</b></td><td>{w.how}</td></tr>)}
              </DataTable>
            </Box>
          </>
        )}
      </Box>
    </Grid>
  )
}
