import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useOptions } from "../../api/queries"
import { EntrySheet, SelectField, TextField } from "../../ui/fields"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"

type In = Schemas["ProductIn"]
const SHARES = [["n_total_pct", "Total nitrogen"], ["n_nitrate_pct", "Nitrate nitrogen"], ["n_ammonium_pct", "Ammoniacal nitrogen"], ["n_urea_pct", "Urea nitrogen"], ["p_pct", "Phosphorus"], ["k_pct", "Potassium"], ["ca_pct", "Calcium, Ca"], ["mg_pct", "Magnesium, Mg"], ["s_pct", "Sulfur, S"]] as const
type Share = (typeof SHARES)[number][0]
type Values = Record<Share, string> & { name: string; form: NonNullable<In["form"]>; basis: NonNullable<In["basis"]>; pk_as: NonNullable<In["pk_as"]>; density_g_mL: string; label_rate: string; label_rate_unit: string }

/** A feed by what its label says. */
export function AddProduct({ onClose }: { onClose: () => void }) {
  const options = useOptions()
  const notice = useNotice()
  const undo = useUndo()
  const empty = Object.fromEntries(SHARES.map(([key]) => [key, ""])) as Record<Share, string>
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    { ...empty, name: "", form: "powder", basis: "w/w", pk_as: "oxide", density_g_mL: "", label_rate: "", label_rate_unit: "g/L" },
    (v, key) => answer(client.POST("/api/products", { params: keyed(key), body: { ...v, label_rate_unit: v.label_rate ? (v.label_rate_unit as In["label_rate_unit"]) : null } })),
    (stored, v) => {
      notice({ text: `${v.name} stands on the shelf.`, undo: () => undo("product", stored.id) })
      onClose()
    },
  )
  const form = entry.form.watch("form")
  return (
    <EntrySheet entry={entry} title="Add a feed by its label" submit="Keep the feed" onCancel={onClose}>
      <TextField form={entry.form} name="name" label="Name" hint="Name it by what it is." />
      <SelectField form={entry.form} name="form" label="Form" choices={["powder", "liquid"]} />
      <SelectField form={entry.form} name="basis" label="Per cent means" choices={[{ value: "w/w", label: "grams in 100 g (w/w)" }, { value: "w/v", label: "grams in 100 mL (w/v)" }]} />
      {form === "liquid" && <TextField form={entry.form} name="density_g_mL" label="Density" unit="g/mL" numeric hint="Weigh 10 mL if the label is silent." />}
      <SelectField form={entry.form} name="pk_as" label="P and K are given as" hint="Elements in some countries: look at the label." choices={[{ value: "oxide", label: "P2O5 and K2O" }, { value: "element", label: "P and K" }]} />
      {SHARES.map(([key, label]) => <TextField key={key} form={entry.form} name={key} label={label} unit="%" numeric />)}
      <TextField form={entry.form} name="label_rate" label="Label rate" numeric hint="Empty: not stated." />
      <SelectField form={entry.form} name="label_rate_unit" label="Rate unit" choices={options?.rate_units ?? ["g/L"]} />
    </EntrySheet>
  )
}
