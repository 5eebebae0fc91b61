import { answer, client, keyed, type Schemas } from "../../../api/client"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useEntryForm } from "../../../ui/useEntryForm"

/** A pot on the kitchen scale: drained, at dry, or now. */
export function WeightForm({
  potId,
  today,
  onClose,
}: {
  potId: number
  today: string
  onClose: () => void
}) {
  const entry = useEntryForm<{ on: string; grams: string; kind: string }, Schemas["Stored"]>(
    { on: today, grams: "", kind: "now" },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/weights", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { ...v, kind: v.kind as "now" | "drained" | "dry" },
        }),
      ),
    onClose,
  )
  return (
    <EntrySheet entry={entry} title="Weigh it" submit="Save the weight" onCancel={onClose}>
      <TextField form={entry.form} name="grams" label="Weight" unit="g" numeric />
      <SelectField
        form={entry.form}
        name="kind"
        label="It is"
        choices={[
          { value: "now", label: "as it stands now" },
          { value: "drained", label: "an hour after watering" },
          { value: "dry", label: "at the weight I water it" },
        ]}
      />
      <TextField form={entry.form} name="on" label="On" type="date" />
    </EntrySheet>
  )
}
