import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useOptions } from "../../api/queries"
import { EntrySheet, SelectField, TextField } from "../../ui/fields"
import { useEntryForm } from "../../ui/useEntryForm"

type In = Schemas["WaterIn"]
type Values = { name: string; kind: In["kind"]; disinfectant: NonNullable<In["disinfectant"]>; price_per_L: string; sodium_mg_L: string; fluoride_mg_L: string; hardness_mg_L_CaCO3: string; alkalinity_mg_L_CaCO3: string; free_chlorine_mg_L: string }

/** A source and what is known of it beside the conductivity. */
export function AddWater({ onClose }: { onClose: (id?: number) => void }) {
  const options = useOptions()
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    { name: "", kind: "rain", disinfectant: "unknown", price_per_L: "", sodium_mg_L: "", fluoride_mg_L: "", hardness_mg_L_CaCO3: "", alkalinity_mg_L_CaCO3: "", free_chlorine_mg_L: "" },
    (v, key) => answer(client.POST("/api/waters", { params: keyed(key), body: { ...v, preference: 100 } })),
    (stored) => onClose(stored.id),
  )
  const unknown = "Leave empty if not measured."
  return (
    <EntrySheet entry={entry} title="Add a source" submit="Keep the source" onCancel={() => onClose()}>
      <TextField form={entry.form} name="name" label="Name" placeholder="Rain cistern" />
      <SelectField form={entry.form} name="kind" label="Kind" hint="Softened means salt; soft means little hardness by nature." choices={options?.water_kinds ?? ["rain"]} />
      <SelectField form={entry.form} name="disinfectant" label="Disinfectant" choices={[{ value: "unknown", label: "not known" }, "none", "free chlorine", "chloramine"]} />
      <TextField form={entry.form} name="free_chlorine_mg_L" label="Free chlorine" unit="mg/L" numeric hint={unknown} />
      <TextField form={entry.form} name="sodium_mg_L" label="Sodium" unit="mg/L" numeric hint={unknown} />
      <TextField form={entry.form} name="fluoride_mg_L" label="Fluoride" unit="mg/L" numeric hint={unknown} />
      <TextField form={entry.form} name="hardness_mg_L_CaCO3" label="Hardness" unit="mg/L CaCO3" numeric hint={unknown} />
      <TextField form={entry.form} name="alkalinity_mg_L_CaCO3" label="Alkalinity" unit="mg/L CaCO3" numeric hint={unknown} />
      <TextField form={entry.form} name="price_per_L" label="Price per litre" numeric hint={unknown} />
    </EntrySheet>
  )
}
