import { Box, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { SelectField, TextField, TickField } from "../../../ui/fields"
import { figure } from "../../../ui/format"
import { useLiveForm } from "../../../ui/useLiveForm"
import { soluble } from "../draft"
import { Columns, FieldGrid, waterChoices } from "./Columns"
import type { ToolProps } from "./Panels"
import { FitAnswer } from "./FitAnswer"

type Values = {
  water_id: string
  product_ids: string[]
  N: string
  P: string
  K: string
  Ca: string
  Mg: string
  volume: string
  nitrate: string
  ec_cap: string
  cost_max: string
}
const ELEMENTS = ["N", "P", "K", "Ca", "Mg"] as const

/** Two to six products to targets, as near as the scale can weigh. */
export function FitTool({ page, waters, draft, onDraft }: ToolProps) {
  const volumeUnit = useSettings()?.volume_unit ?? "L"
  const shelf = soluble(page)
  const start = shelf
    .filter(
      (p) =>
        ["Ca", "K"].some((e) => p.label.formula.startsWith(e)) && p.label.formula.includes("NO3"),
    )
    .slice(0, 2)
    .map((p) => String(p.id))
  const {
    form,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_Fit_"]>(
    `fit-${volumeUnit}`,
    {
      water_id: String(draft.water_id),
      product_ids: start,
      N: "60",
      P: "",
      K: "",
      Ca: "40",
      Mg: "",
      volume: "5",
      nitrate: "",
      ec_cap: "",
      cost_max: "",
    },
    (v) =>
      answer(
        client.POST("/api/mix/fit", {
          body: {
            water_id: Number(v.water_id),
            product_ids: v.product_ids.map(Number),
            volume: v.volume,
            volume_unit: volumeUnit,
            targets: ELEMENTS.map((element) => ({ element, mg_L: v[element] })),
            nitrate_share_pct: v.nitrate,
            ec_cap: v.ec_cap,
            cost_max: v.cost_max,
          },
        }),
      ),
    (v) => v.product_ids.length > 0 && ELEMENTS.some((e) => v[e] !== "") && v.volume !== "",
  )
  const r = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  const take = () => {
    if (!r) return
    const made = r.parts
      .filter((p) => p.rounded > 0)
      .map((p) => ({
        id: shelf.find((x) => x.name === p.name)?.id ?? 0,
        dose: figure(p.rounded_dose_g_L, 4),
      }))
    const first = made[0]
    if (first)
      onDraft({
        ...draft,
        recipe: "",
        product_id: first.id,
        strength: "dose",
        value: first.dose,
        volume: form.getValues("volume"),
        also: made.slice(1).map((m) => ({ product_id: m.id, dose: m.dose })),
      })
    window.scrollTo({ top: 0 })
  }
  return (
    <Columns
      problem={problem}
      asked={
        <>
          <Box as="fieldset" mb="3" minW="0">
            <Text as="legend" fontSize="sm" mb="1">
              Products
            </Text>
            <Flex wrap="wrap" columnGap="5">
              {shelf.map((p) => (
                <TickField
                  key={p.id}
                  form={form}
                  name="product_ids"
                  value={String(p.id)}
                  label={p.name}
                />
              ))}
            </Flex>
          </Box>
          <FieldGrid>
            {ELEMENTS.map((e) => (
              <TextField key={e} form={form} name={e} label={`${e} wanted`} unit="mg/L" numeric />
            ))}
            <TextField form={form} name="volume" label="Volume" unit={volumeUnit} numeric />
            <SelectField
              form={form}
              name="water_id"
              label="In this water"
              choices={waterChoices(waters)}
            />
            <TextField form={form} name="nitrate" label="Nitrate at least" unit="% of N" numeric />
            <TextField form={form} name="ec_cap" label="EC at most" unit="µS/cm" numeric />
            <TextField
              form={form}
              name="cost_max"
              label="Cost at most"
              unit="a litre"
              numeric
              hint="Needs the price of each."
            />
          </FieldGrid>
        </>
      }
    >
      {r && (
        <>
          <FitAnswer r={r} here={here} take={take} />
        </>
      )}
    </Columns>
  )
}
