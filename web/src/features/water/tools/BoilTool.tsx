import { Box, Grid, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { Facts } from "../../../ui/Facts"
import { TextField } from "../../../ui/fields"
import { Quantity } from "../../../ui/Quantity"
import { useLiveForm } from "../../../ui/useLiveForm"

type Values = { volume: string; boiled_off_pct: string }

/** Boil, stand overnight, decant: what settles and what stays. */
export function BoilTool({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const volumeUnit = useSettings()?.volume_unit ?? "L"
  const water = page.waters.find((w) => w.id === chosen)
  const {
    form,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_Boiled_"]>(
    `boil-${chosen}-${volumeUnit}`,
    { volume: "5", boiled_off_pct: "5" },
    (v) =>
      answer(
        client.POST("/api/water/boil", {
          body: { ...v, volume_unit: volumeUnit, water_id: chosen },
        }),
      ),
    (v) => v.volume !== "" && v.boiled_off_pct !== "",
  )
  const r = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1fr)" }} gap="6">
      <Box>
        <Text mb="2">
          Boiling {water?.name} for ten minutes, letting it cool and stand open overnight, then
          pouring off the clear water.
        </Text>
        <Grid templateColumns="repeat(auto-fit, minmax(150px, 1fr))" gap="3">
          <TextField form={form} name="volume" label="Volume" unit={volumeUnit} numeric />
          <TextField
            form={form}
            name="boiled_off_pct"
            label="Boiled off as steam"
            unit="%"
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
                [
                  "EC before",
                  <Quantity
                    key="b"
                    label="EC before"
                    kind="ec"
                    value={r.ec25_before_uS_cm}
                    working={here}
                  />,
                ],
                [
                  "EC after, best and half of it",
                  <Quantity
                    key="a"
                    label="EC after boiling"
                    kind="ec"
                    value={r.ec25_uS_cm}
                    low={r.ec25_uS_cm}
                    high={r.ec25_high_uS_cm}
                    working={here}
                  />,
                ],
                [
                  "Alkalinity after",
                  <Quantity
                    key="k"
                    label="Alkalinity after boiling"
                    value={r.alkalinity_mg_L_CaCO3}
                    low={r.alkalinity_mg_L_CaCO3}
                    high={r.alkalinity_high_mg_L_CaCO3}
                    unit="mg/L CaCO3"
                    working={here}
                  />,
                ],
                [
                  "Calcium after",
                  <Quantity
                    key="c"
                    label="Calcium after boiling"
                    value={r.Ca_mg_L}
                    unit="mg/L"
                    working={here}
                  />,
                ],
                [
                  "Scale left in the pot, at most",
                  <Quantity key="s" label="Scale" value={r.scale_g} unit="g" working={here} />,
                ],
              ]}
            />
          </>
        )}
      </Box>
    </Grid>
  )
}
