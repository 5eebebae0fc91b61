import { amount } from "../../../ui/format"
import { Box, Button, Grid, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { usePress } from "../../../ui/usePress"
import { useLiveForm } from "../../../ui/useLiveForm"
import { ScaleOdds } from "./ScaleOdds"

type Values = {
  against: Schemas["GuessIn"]["against"]
  shown: string
  other_uS_cm: string
  temperature: string
}
type Props = {
  meter: Schemas["MeterOut"]
  others: Schemas["MeterOut"][]
  standards: Record<string, number>
  onClose: () => void
}

/** A guided check: one known standard, or the same water on two meters, names the scale. */
export function ScaleGuess({ meter, others, standards, onClose }: Props) {
  const temperatureUnit = useSettings()?.temperature_unit ?? "°C"
  const {
    form,
    values,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_ScaleGuess_"]>(
    `scale-${meter.id}-${temperatureUnit}`,
    { against: "1413", shown: "", other_uS_cm: "", temperature: "" },
    (v) =>
      answer(
        client.POST("/api/meters/{meter_id}/scale-guess", {
          params: { path: { meter_id: meter.id } },
          body: { ...v, temperature_unit: temperatureUnit },
        }),
      ),
    (v) => v.shown !== "",
  )
  const set = usePress<Schemas["ScaleGuess"], Schemas["Stored"]>((guess, key) => {
    const shows = guess.scale === "µS/cm"
    const scale =
      guess.scale === "0.5" || guess.scale === "0.64" || guess.scale === "0.7" ? guess.scale : null
    return answer(
      client.PUT("/api/meters/{meter_id}", {
        params: { ...keyed(key), path: { meter_id: meter.id } },
        body: {
          name: meter.name,
          unit: shows ? "µS/cm" : "ppm",
          scale,
          compensation: meter.compensation,
          alpha_pct_per_C: meter.alpha_pct_per_C,
          resolution: meter.resolution,
          accuracy_pct_fs: meter.accuracy_pct_fs,
          range_uS_cm: meter.range_uS_cm,
          device: meter.device,
        },
      }),
    )
  }, onClose)
  const r = found?.result
  const meters = others.filter((m) => m.id !== meter.id && m.unit !== "ppm")
  return (
    <Box
      as="section"
      aria-label={`Which scale is ${meter.name}?`}
      borderWidth="1px"
      borderColor="border.strong"
      borderRadius="lg"
      p="4"
    >
      <Text as="h3" fontWeight="semibold" mb="1">
        Which scale is {meter.name}?
      </Text>
      <Text mb="2">
        1. Rinse the pen. 2. Dip it into a fresh standard near {amount(25, "°C")}, or into one glass
        of tap water together with a meter you trust. 3. Enter both.
      </Text>
      <Grid templateColumns="repeat(auto-fit, minmax(160px, 1fr))" gap="3" maxW="640px">
        <SelectField
          form={form}
          name="against"
          label="It stands in"
          choices={[
            ...Object.keys(standards).map((s) => ({ value: s, label: `standard ${s} µS/cm` })),
            {
              value: "another meter",
              label: meters.length > 0 ? "a water on another meter" : "a water of known EC",
            },
          ]}
        />
        {values.against === "another meter" && (
          <TextField
            form={form}
            name="other_uS_cm"
            label="The other meter says"
            unit="µS/cm"
            own
            numeric
          />
        )}
        <TextField form={form} name="shown" label={`${meter.name} shows`} numeric />
        {meter.compensation === "none" && (
          <TextField
            form={form}
            name="temperature"
            label="Water temperature"
            unit={temperatureUnit}
            numeric
            hint="Needed: this meter does not correct."
          />
        )}
      </Grid>
      <Box mt="3" aria-live="polite">
        {problem && (
          <Text role="alert" color="state.stop">
            {problem}
          </Text>
        )}
        {r && found && (
          <>
            <ScaleOdds r={r} working={found.working} />
            {r.scale !== null && (
              <Button loading={set.isPending} onClick={() => set.mutate(r)}>
                {r.scale === "µS/cm" ? "Set it to µS/cm" : `Set it to the ${r.scale} scale`}
              </Button>
            )}
          </>
        )}
      </Box>
      <Button mt="3" variant="outline" data-back onClick={onClose}>
        Cancel
      </Button>
    </Box>
  )
}
