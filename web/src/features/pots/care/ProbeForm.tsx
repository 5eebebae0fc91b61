import { answer, client, keyed, type Schemas } from "../../../api/client"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useEntryForm } from "../../../ui/useEntryForm"

/** A soil probe with the scale printed on it: two probes never share their figures. */
export function ProbeForm({ onClose }: { onClose: (id?: number) => void }) {
  const entry = useEntryForm<
    { name: string; lowest: string; highest: string; dry_end: "low" | "high" },
    Schemas["Stored"]
  >(
    { name: "", lowest: "1", highest: "10", dry_end: "low" },
    (v, key) => answer(client.POST("/api/probes", { params: keyed(key), body: v })),
    (stored) => onClose(stored.id),
  )
  return (
    <EntrySheet
      entry={entry}
      title="A probe and its scale"
      submit="Save the probe"
      onCancel={() => onClose()}
    >
      <TextField
        form={entry.form}
        name="name"
        label="Called"
        hint="It ranks wet and dry in one medium; it measures no water."
      />
      <TextField form={entry.form} name="lowest" label="Scale from" numeric />
      <TextField form={entry.form} name="highest" label="to" numeric />
      <SelectField
        form={entry.form}
        name="dry_end"
        label="Dry is"
        choices={[
          { value: "low", label: "its low end" },
          { value: "high", label: "its high end" },
        ]}
      />
    </EntrySheet>
  )
}
