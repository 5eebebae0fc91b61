import { Box, Flex, Grid, Text } from "@chakra-ui/react"
import { useSearchParams } from "react-router"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { SelectField, TextField, TickField } from "../../../ui/fields"
import { numberIn } from "../../../ui/format"
import { useLiveForm } from "../../../ui/useLiveForm"
import { BlendAnswer } from "./BlendAnswer"
import { type Values, WHAT } from "./blend"

/** Two or more sources to a target, at least cost or with least of the scarce one. */
export function BlendTool({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const volumeUnit = useSettings()?.volume_unit ?? "L"
  const aim = useSearchParams()[0].get("aim") === "alkalinity"
  const usable = page.waters
  const own = usable.find((w) => w.id === chosen)?.reckoned_uS_cm ?? 1
  // the water most unlike the chosen one: with it a blend can reach the most
  const second = usable
    .filter((w) => w.id !== chosen)
    .toSorted((a, b) => Math.abs(b.reckoned_uS_cm - own) - Math.abs(a.reckoned_uS_cm - own))[0]
  const {
    form,
    values,
    answer: found,
    problem,
    refused,
  } = useLiveForm<Values, Schemas["Computed_Blend_"]>(
    `blend-${volumeUnit}`,
    {
      water_ids: [chosen, second?.id].filter(Boolean).map(String),
      quantity: aim ? "alkalinity" : "ec",
      sense: "about",
      value: aim ? "60" : "120",
      also: "",
      most: "",
      volume: "2",
      objective: "cost",
      scarce_id: String(chosen),
      mind_stock: ["yes"],
    },
    (v) =>
      answer(
        client.POST("/api/water/blend", {
          body: {
            water_ids: v.water_ids.map(Number),
            volume: v.volume,
            volume_unit: volumeUnit,
            objective: v.objective,
            scarce_id: Number(v.scarce_id),
            mind_stock: v.mind_stock.length > 0,
            targets: [
              { quantity: v.quantity, value: v.value, sense: v.sense },
              ...(v.also && v.most
                ? [{ quantity: v.also, value: v.most, sense: "at most" as const }]
                : []),
            ],
          },
        }),
      ),
    (v) => v.water_ids.length > 1 && v.value !== "" && v.volume !== "",
  )
  const blend = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1fr)" }} gap="6">
      <Box>
        <Box as="fieldset" mb="2">
          <Text as="legend" fontSize="sm" mb="1">
            Waters to blend
          </Text>
          <Flex wrap="wrap" columnGap="5">
            {usable.map((w) => (
              <TickField
                key={w.id}
                form={form}
                name="water_ids"
                value={String(w.id)}
                label={`${w.name}, ${w.ec25_uS_cm === null ? "not measured" : numberIn(w.ec25_uS_cm, "µS/cm")}`}
              />
            ))}
          </Flex>
        </Box>
        <Grid templateColumns="repeat(auto-fit, minmax(140px, 1fr))" gap="3">
          <SelectField form={form} name="quantity" label="Wanted" choices={WHAT} />
          <SelectField form={form} name="sense" label="How" choices={["about", "at most"]} />
          <TextField form={form} name="value" label="Target" numeric />
          <SelectField
            form={form}
            name="also"
            label="And at most"
            choices={[
              { value: "", label: "nothing else" },
              ...WHAT.filter((w) => w.value !== values.quantity),
            ]}
          />
          {values.also !== "" && <TextField form={form} name="most" label="At most" numeric />}
          <TextField form={form} name="volume" label="Volume" unit={volumeUnit} numeric />
          <SelectField
            form={form}
            name="objective"
            label="Aim"
            choices={[
              { value: "cost", label: "least cost" },
              { value: "least of the scarce", label: "least of the scarce water" },
            ]}
          />
          {values.objective !== "cost" && (
            <SelectField
              form={form}
              name="scarce_id"
              label="Scarce"
              choices={usable
                .filter((w) => values.water_ids.includes(String(w.id)))
                .map((w) => ({ value: String(w.id), label: w.name }))}
            />
          )}
        </Grid>
        <TickField form={form} name="mind_stock" value="yes" label="Keep to the litres on hand" />
      </Box>
      <Box aria-live="polite">
        {problem && (
          <Text role="alert" color="state.stop">
            {problem}
          </Text>
        )}
        {!problem && !blend && !refused && (
          <Text color="fg.muted">Choose two waters or more, and a target.</Text>
        )}
        {blend && (
          <>
            <BlendAnswer blend={blend} here={here} />
          </>
        )}
      </Box>
    </Grid>
  )
}
