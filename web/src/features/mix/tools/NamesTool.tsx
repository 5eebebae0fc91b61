import { Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { Facts } from "../../../ui/Facts"
import { SelectField, TextField } from "../../../ui/fields"
import { figure } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"
import { useLiveForm } from "../../../ui/useLiveForm"
import { type Mode, soluble } from "../draft"
import { Columns, FieldGrid, waterChoices } from "./Columns"
import type { ToolProps } from "./Panels"

type Values = { product_id: string; water_id: string; strength: Mode; value: string }
const MODES = [{ value: "fraction", label: "share of the label" }, { value: "nitrogen", label: "mg/L N" }, { value: "ec_added", label: "EC added, µS/cm" }, { value: "ec_total", label: "EC in the can, µS/cm" }, { value: "dose", label: "g/L" }]

/** What someone means by a strength, said in every other way. */
export function NamesTool({ page, waters, draft }: ToolProps) {
  const { form, answer: found, problem } = useLiveForm<Values, Schemas["Computed_Equivalents_"]>(
    "names",
    { product_id: String(draft.product_id ?? soluble(page)[0]?.id ?? ""), water_id: String(draft.water_id), strength: "fraction", value: "reduce by three quarters" },
    (v) => answer(client.POST("/api/mix/names", { body: { product_id: Number(v.product_id), water_id: Number(v.water_id), volume: 1, volume_unit: "L", pot_ids: [], blend: [], also: [], element: "N", route: "root", strength: v.strength, value: v.value } })),
    (v) => v.value !== "",
  )
  const r = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  const unit = r?.dose_mL_L === null ? "g" : "mL"
  return (
    <Columns problem={problem} asked={
      <FieldGrid>
        <SelectField form={form} name="product_id" label="Feed" choices={soluble(page).map((p) => ({ value: String(p.id), label: p.name }))} />
        <SelectField form={form} name="water_id" label="In this water" choices={waterChoices(waters)} />
        <SelectField form={form} name="strength" label="Said as" choices={MODES} />
        <TextField form={form} name="value" label="What was said" hint="For example 1/4, 25 %, half strength, reduce by 3/4." />
      </FieldGrid>
    }>
      {r && (
        <>
          {r.sentences.map((s) => <Text key={s} fontWeight={s.includes("eep") ? "semibold" : undefined}>{s}</Text>)}
          <Facts rows={[
            ["Share of the label kept", <Quantity key="f" label="Share kept" value={r.fraction} unit="" working={here} none="the label names no rate" />],
            ["Nitrogen", <Quantity key="n" label="Nitrogen" value={r.nitrogen_mg_L} unit="mg/L N" working={here} />],
            ["EC added", <Quantity key="a" label="EC added" kind="ec" value={r.ec_added_uS_cm} working={here} />],
            ["EC in the can", <Quantity key="t" label="EC in the can" kind="ec" value={r.ec_total_uS_cm} working={here} />],
            ["A litre", <Quantity key="l" label="Dose" value={r.dose_mL_L ?? r.dose_g_L} unit={`${unit}/L`} working={here} />],
            ["A US gallon", <Quantity key="u" label="For a US gallon" value={r.per_us_gal} unit={unit} working={here} />],
            ["An imperial gallon", <Quantity key="i" label="For an imperial gallon" value={r.per_imp_gal} unit={unit} working={here} />],
            ["100 US gallons", <Quantity key="o" label="For 100 US gallons" value={r.oz_per_100_us_gal} unit="oz" working={here} />],
            ["Elements", Object.entries(r.elements_mg_L).map(([name, level]) => `${name} ${figure(level, 2)}`).join(", ")],
          ]} />
        </>
      )}
    </Columns>
  )
}
