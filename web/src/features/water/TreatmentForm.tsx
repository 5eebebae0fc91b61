import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { SelectField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { useEntryForm } from "../../ui/useEntryForm"

type Values = {
  on: string
  kind: Schemas["TreatmentIn"]["kind"]
  before: string
  after: string
  note: string
}

/** A dated step, read before and after if it can be: what did it really remove? */
export function TreatmentForm({
  water,
  today,
  onClose,
}: {
  water: Schemas["WaterOut"]
  today: string
  onClose: () => void
}) {
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    { on: today, kind: "stood", before: "", after: "", note: "" },
    (v, key) =>
      answer(
        client.POST("/api/waters/{water_id}/treatments", {
          params: { ...keyed(key), path: { water_id: water.id } },
          body: v,
        }),
      ),
    onClose,
  )
  return (
    <EntrySheet
      entry={entry}
      title={`Something done to ${water.name}`}
      submit="Save the step"
      onCancel={onClose}
    >
      <SelectField
        form={entry.form}
        name="kind"
        label="Step"
        choices={["stood", "aerated", "carbon", "conditioner", "boiled", "acidified"]}
      />
      <TextField
        form={entry.form}
        name="before"
        label="EC before"
        unit="µS/cm"
        numeric
        hint="Both, or neither."
      />
      <TextField form={entry.form} name="after" label="EC after" unit="µS/cm" numeric />
      <TextField form={entry.form} name="on" label="Date" type="date" />
      <TextField
        form={entry.form}
        name="note"
        label="Note"
        placeholder="jug filter, new cartridge"
      />
    </EntrySheet>
  )
}
