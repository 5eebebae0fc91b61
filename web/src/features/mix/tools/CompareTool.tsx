import { Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { DataTable } from "../../../ui/DataTable"
import { SelectField, TextField } from "../../../ui/fields"
import { figure } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"
import { useLiveForm } from "../../../ui/useLiveForm"
import { soluble } from "../draft"
import { Columns, FieldGrid, waterChoices } from "./Columns"
import type { ToolProps } from "./Panels"

type Values = {
  first: string
  second: string
  water_id: string
  basis: Schemas["CompareIn"]["basis"]
  value: string
}
const BASES = [
  { value: "nitrogen", label: "mg/L N" },
  { value: "ec_added", label: "EC added" },
  { value: "cost", label: "cost a litre" },
]
const ROWS: [string, keyof Schemas["FeedRow"], string][] = [
  ["Nitrogen", "nitrogen_mg_L", "mg/L"],
  ["of it nitrate", "nitrate_mg_L", "mg/L"],
  ["of it ammonium", "ammonium_mg_L", "mg/L"],
  ["of it urea", "urea_mg_L", "mg/L"],
  ["Phosphorus", "P_mg_L", "mg/L"],
  ["Potassium", "K_mg_L", "mg/L"],
  ["Calcium", "Ca_mg_L", "mg/L"],
  ["Magnesium", "Mg_mg_L", "mg/L"],
  ["Acidity it can make", "acidity_mg_L", "mg/L CaCO3"],
  ["Cost", "cost_per_L", "a litre"],
]

/** Two feeds at the same nitrogen, the same reading or the same money. */
export function CompareTool({ page, waters, draft }: ToolProps) {
  const feeds = soluble(page).filter((p) => p.label.formula === "")
  const choices = soluble(page).map((p) => ({ value: String(p.id), label: p.name }))
  const {
    form,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_Comparison_"]>(
    "compare",
    {
      first: String(feeds[0]?.id ?? ""),
      second: String(feeds.find((f) => f.elements.N_urea_mg_g > 0)?.id ?? feeds[1]?.id ?? ""),
      water_id: String(draft.water_id),
      basis: "nitrogen",
      value: "60",
    },
    (v) =>
      answer(
        client.POST("/api/mix/compare", {
          body: {
            water_id: Number(v.water_id),
            first_id: Number(v.first),
            second_id: Number(v.second),
            basis: v.basis,
            value: v.value,
          },
        }),
      ),
    (v) => v.value !== "" && v.first !== "" && v.second !== "",
  )
  const r = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  return (
    <Columns
      problem={problem}
      asked={
        <FieldGrid>
          <SelectField form={form} name="first" label="One feed" choices={choices} />
          <SelectField form={form} name="second" label="The other" choices={choices} />
          <SelectField form={form} name="basis" label="Held equal" choices={BASES} />
          <TextField
            form={form}
            name="value"
            label="At"
            unit={form.watch("basis") === "ec_added" ? "µS/cm" : undefined}
            numeric
          />
          <SelectField
            form={form}
            name="water_id"
            label="In this water"
            choices={waterChoices(waters)}
          />
        </FieldGrid>
      }
    >
      {r && (
        <>
          <DataTable label="Two feeds" head={["", ...r.rows.map((x) => x.name)]} minW="420px">
            <tr>
              <td>Dose</td>
              {r.rows.map((x) => (
                <td key={x.name}>
                  <Quantity
                    label={`Dose of ${x.name}`}
                    value={x.dose_mL_L ?? x.dose_g_L}
                    unit={x.dose_mL_L === null ? "g/L" : "mL/L"}
                    working={here}
                  />
                </td>
              ))}
            </tr>
            <tr>
              <td>EC in the can</td>
              {r.rows.map((x) => (
                <td key={x.name}>
                  <Quantity
                    label={`EC with ${x.name}`}
                    kind="ec"
                    value={x.ec_total_uS_cm}
                    working={here}
                  />
                </td>
              ))}
            </tr>
            {ROWS.map(([label, key, unit]) => (
              <tr key={key}>
                <td>{label}</td>
                {r.rows.map((x) => (
                  <td key={x.name}>
                    {x[key] === null ? "not known" : `${figure(Number(x[key]), 3)} ${unit}`}
                  </td>
                ))}
              </tr>
            ))}
          </DataTable>
          {r.sentences.map((s) => (
            <Text key={s} mt="1">
              {s}
            </Text>
          ))}
        </>
      )}
    </Columns>
  )
}
