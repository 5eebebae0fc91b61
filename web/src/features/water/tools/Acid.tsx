import { Box, Grid, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { useLiveForm } from "../../../ui/useLiveForm"
import { Safety } from "./Safety"
import { AcidAnswer } from "./AcidAnswer"

type Values = {
  volume: string
  acid: string
  strength_pct: string
  density_g_mL: string
  target: "alkalinity" | "pH"
  value: string
}

export function Acid({
  page,
  chosen,
  acids,
}: {
  page: Schemas["WaterPage"]
  chosen: number
  acids: Schemas["AcidsPage"]
}) {
  const volumeUnit = useSettings()?.volume_unit ?? "L"
  const water = page.waters.find((w) => w.id === chosen)
  const {
    form,
    values,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_Acidified_"]>(
    `acid-${chosen}-${volumeUnit}`,
    {
      volume: "10",
      acid: "citric",
      strength_pct: "",
      density_g_mL: "",
      target: "alkalinity",
      value: "60",
    },
    (v) =>
      answer(
        client.POST("/api/water/acidify", {
          body: { ...v, volume_unit: volumeUnit, water_id: chosen },
        }),
      ),
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
          <SelectField
            form={form}
            name="acid"
            label="Acid"
            choices={acids.acids.map((a) => ({
              value: a.id,
              label: a.household ? a.label : `${a.label} (not for the household)`,
            }))}
          />
          {acid?.state === "liquid" && (
            <TextField
              form={form}
              name="strength_pct"
              label="Strength on the bottle"
              unit="% by weight"
              numeric
              hint={`Known: ${acid.strengths_pct.join(", ")} %.`}
            />
          )}
          {acid?.state === "liquid" && (
            <TextField
              form={form}
              name="density_g_mL"
              label="Density on the bottle"
              unit="g/mL"
              numeric
              hint="Empty for a known strength."
            />
          )}
          <SelectField
            form={form}
            name="target"
            label="Bring down"
            choices={[
              { value: "alkalinity", label: "alkalinity" },
              { value: "pH", label: "pH, right after mixing" },
            ]}
          />
          <TextField
            form={form}
            name="value"
            label={values.target === "pH" ? "To pH" : "To alkalinity, mg/L CaCO3"}
            numeric
          />
        </Grid>
        <Safety lines={acids.safety} />
      </Box>
      <Box aria-live="polite">
        {problem && (
          <Text role="alert" color="state.stop">
            {problem}
          </Text>
        )}
        {r && found && (
          <>
            <AcidAnswer
              r={r}
              cautions={found.working.cautions}
              label={acid?.label ?? ""}
              here={here}
            />
          </>
        )}
      </Box>
    </Grid>
  )
}
