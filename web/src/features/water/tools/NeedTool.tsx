import { Box, Grid, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { Facts } from "../../../ui/Facts"
import { TextField } from "../../../ui/fields"
import { Quantity } from "../../../ui/Quantity"
import { useLiveForm } from "../../../ui/useLiveForm"

type Values = { days: string; pack: string }

/** How long the litres at hand last, and how many jugs to fetch. */
export function NeedTool({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const volumeUnit = useSettings()?.volume_unit ?? "L"
  const water = page.waters.find((w) => w.id === chosen)
  const {
    form,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_WaterNeed_"]>(
    `need-${chosen}-${volumeUnit}`,
    { days: "30", pack: "" },
    (v) =>
      answer(
        client.POST("/api/water/need", {
          body: {
            water_id: chosen,
            days: Number(v.days),
            pack: v.pack || null,
            volume_unit: volumeUnit,
          },
        }),
      ),
    (v) => /^\d+$/.test(v.days),
  )
  const r = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  const litres = (label: string, value: number | null) => (
    <Quantity key={label} label={label} kind="volume" value={value} working={here} />
  )
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1fr)" }} gap="6">
      <Box>
        <Text mb="2">
          What the pots that the round waters with {water?.name} take, by their usual pours.
        </Text>
        <Grid templateColumns="repeat(auto-fit, minmax(150px, 1fr))" gap="3">
          <TextField form={form} name="days" label="Days" unit="d" numeric />
          <TextField
            form={form}
            name="pack"
            label="A jug or pack holds"
            unit={volumeUnit}
            hint="Empty: by the litre."
            numeric
          />
        </Grid>
      </Box>
      <Box aria-live="polite">
        {problem && (
          <Text role="alert" color="state.stop">
            {problem}
          </Text>
        )}
        {r && (
          <>
            <Text fontWeight="semibold">{r.sentence}</Text>
            <Facts
              rows={[
                ["Needed", litres("Needed", r.need_L)],
                ["Short", r.short_L === null ? "not known" : litres("Short", r.short_L)],
                [
                  "At hand lasts",
                  r.lasts_days === null ? (
                    "not known"
                  ) : (
                    <Quantity
                      key="d"
                      label="At hand lasts"
                      value={r.lasts_days}
                      unit="d"
                      working={here}
                    />
                  ),
                ],
              ]}
            />
          </>
        )}
      </Box>
    </Grid>
  )
}
