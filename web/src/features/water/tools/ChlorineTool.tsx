import { Box, Grid, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { useLiveForm } from "../../../ui/useLiveForm"
import { Dechlorinated } from "./Dechlorinated"

type Values = {
  volume: string
  free: string
  total: string
  supplier: "unknown" | "free chlorine" | "chloramine"
}

/** Conditioner for tap water, and which other ways work on it. */
export function ChlorineTool({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const volumeUnit = useSettings()?.volume_unit ?? "L"
  const water = page.waters.find((w) => w.id === chosen)
  const tested = (quantity: string) => {
    const t = water?.tests.find((x) => x.quantity === quantity)
    return t ? String((t.low + t.high) / 2) : ""
  }
  const supplier =
    water?.disinfectant === "free chlorine" || water?.disinfectant === "chloramine"
      ? water.disinfectant
      : "unknown"
  const {
    form,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_Dechlorination_"]>(
    `chlorine-${chosen}-${volumeUnit}`,
    { volume: "10", free: tested("free chlorine"), total: tested("total chlorine"), supplier },
    (v) =>
      answer(client.POST("/api/water/dechlorinate", { body: { ...v, volume_unit: volumeUnit } })),
    (v) => v.volume !== "",
  )
  const r = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1fr)" }} gap="6">
      <Grid templateColumns="repeat(auto-fit, minmax(150px, 1fr))" gap="3" alignContent="start">
        <TextField form={form} name="volume" label="Volume" unit={volumeUnit} numeric />
        <TextField
          form={form}
          name="free"
          label="Free chlorine"
          unit="mg/L"
          numeric
          hint="Empty if not tested."
        />
        <TextField
          form={form}
          name="total"
          label="Total chlorine"
          unit="mg/L"
          numeric
          hint="What it has over free is chloramine."
        />
        <SelectField
          form={form}
          name="supplier"
          label="The supplier uses"
          choices={[{ value: "unknown", label: "not known" }, "free chlorine", "chloramine"]}
        />
      </Grid>
      <Box aria-live="polite">
        {problem && (
          <Text role="alert" color="state.stop">
            {problem}
          </Text>
        )}
        {r && (
          <>
            <Dechlorinated r={r} here={here} />
          </>
        )}
      </Box>
    </Grid>
  )
}
