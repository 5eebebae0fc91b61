import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { useQuantities } from "../../../api/waterQueries"
import { AmountFields, type AmountValues, filledAmounts } from "../../../ui/AmountFields"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useEntryForm } from "../../../ui/useEntryForm"

type Values = AmountValues & {
  water_id: string
  on: string
  laboratory: string
  reported_uS_cm: string
}

type Props = { page: Schemas["WaterPage"]; chosen: number; onClose: () => void }

/** A report's lines as the laboratory writes them, each in its own unit. */
export function ReportForm(props: Props) {
  const known = useQuantities()
  return known.length === 0 ? null : <Form {...props} known={known} />
}

function Form({ page, chosen, onClose, known }: Props & { known: Schemas["QuantityOut"][] }) {
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      water_id: String(chosen),
      on: page.today,
      laboratory: "",
      reported_uS_cm: "",
      amounts: Object.fromEntries(known.map((q) => [q.id, { typed: "", unit: q.units[0] ?? "" }])),
    },
    (v, key) =>
      answer(
        client.POST("/api/waters/{water_id}/reports", {
          params: { ...keyed(key), path: { water_id: Number(v.water_id) } },
          body: {
            on: v.on,
            laboratory: v.laboratory,
            reported_uS_cm: v.reported_uS_cm,
            note: "",
            lines: filledAmounts(v.amounts),
          },
        }),
      ),
    onClose,
  )
  return (
    <EntrySheet entry={entry} title="Type a report" submit="Save the report" onCancel={onClose}>
      <SelectField
        form={entry.form}
        name="water_id"
        label="Water"
        choices={page.waters.map((w) => ({ value: String(w.id), label: w.name }))}
      />
      <TextField form={entry.form} name="on" label="Date of the sample" type="date" />
      <TextField form={entry.form} name="laboratory" label="Laboratory or supplier" />
      <TextField
        form={entry.form}
        name="reported_uS_cm"
        label="Conductivity stated"
        unit="µS/cm at 25 °C"
        own
        numeric
        hint="A range such as 5-10 or <0.02 is understood below; empty means not measured."
      />
      <AmountFields form={entry.form} ids={known.map((q) => q.id)} />
    </EntrySheet>
  )
}
