import { unitName } from "../../../ui/format"
import { Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { SelectField, TextField } from "../../../ui/fields"
import { useLiveForm } from "../../../ui/useLiveForm"
import { type Mode, soluble } from "../draft"
import { Columns, FieldGrid, waterChoices } from "./Columns"
import type { ToolProps } from "./Panels"
import { Equivalents } from "./Equivalents"

type Values = { product_id: string; water_id: string; strength: Mode; value: string }
const modes = () => [
  { value: "fraction", label: "share of the label" },
  { value: "nitrogen", label: "mg/L N" },
  { value: "ec_added", label: `EC added, ${unitName("µS/cm")}` },
  { value: "ec_total", label: `EC in the can, ${unitName("µS/cm")}` },
  { value: "dose", label: "g/L" },
]

/** What someone means by a strength, said in every other way. */
export function NamesTool({ page, waters, draft }: ToolProps) {
  const {
    form,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_Equivalents_"]>(
    "names",
    {
      product_id: String(draft.product_id ?? soluble(page)[0]?.id ?? ""),
      water_id: String(draft.water_id),
      strength: "fraction",
      value: "reduce by three quarters",
    },
    (v) =>
      answer(
        client.POST("/api/mix/names", {
          body: {
            product_id: Number(v.product_id),
            water_id: Number(v.water_id),
            volume: 1,
            volume_unit: "L",
            pot_ids: [],
            blend: [],
            also: [],
            element: "N",
            route: "root",
            strength: v.strength,
            value: v.value,
          },
        }),
      ),
    (v) => v.value !== "",
  )
  const r = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  const unit = r?.dose_mL_L === null ? "g" : "mL"
  return (
    <Columns
      problem={problem}
      asked={
        <FieldGrid>
          <SelectField
            form={form}
            name="product_id"
            label="Feed"
            choices={soluble(page).map((p) => ({ value: String(p.id), label: p.name }))}
          />
          <SelectField
            form={form}
            name="water_id"
            label="In this water"
            choices={waterChoices(waters)}
          />
          <SelectField form={form} name="strength" label="Said as" choices={modes()} />
          <TextField
            form={form}
            name="value"
            label="What was said"
            unit={form.watch("strength").startsWith("ec") ? "µS/cm" : undefined}
            hint="For example 1/4, 25 %, half strength, reduce by 3/4."
          />
        </FieldGrid>
      }
    >
      {r && (
        <>
          {r.sentences.map((s) => (
            <Text key={s} fontWeight={s.includes("eep") ? "semibold" : undefined}>
              {s}
            </Text>
          ))}
          <Equivalents r={r} unit={unit} here={here} />
        </>
      )}
    </Columns>
  )
}
