import { answer, client, keyed, type Schemas } from "../../api/client"
import { EntrySheet } from "../../ui/EntrySheet"
import { NoteField, SelectField, TextField } from "../../ui/fields"
import { useEntryForm } from "../../ui/useEntryForm"

type In = Schemas["FlushBeginIn"]
type Values = {
  way: NonNullable<In["way"]>
  target_reading: string
  weight_g: string
  on: string
  note: string
}
const WAYS = ["rounds", "soak and drain", "baths"] as const

/** A flush begun another way than the plan's: its way, target, weight, day, and why in spite of a hold. */
export function StartForm({
  potId,
  waterId,
  today,
  found,
  onBegun,
  onClose,
}: {
  potId: number
  waterId: number
  today: string
  found: Schemas["FlushMethods"]
  onBegun: (flushId: number) => void
  onClose: () => void
}) {
  const possible = WAYS.filter((w) => found.ways.some((x) => x.way === w && x.possible))
  const entry = useEntryForm<Values, Schemas["FlushOut"]>(
    { way: possible[0] ?? "rounds", target_reading: "", weight_g: "", on: today, note: "" },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/flushes", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { ...v, water_id: waterId, by: "" },
        }),
      ),
    (f) => onBegun(f.id),
  )
  return (
    <EntrySheet entry={entry} title="Start the flush" submit="Begin the flush" onCancel={onClose}>
      <SelectField form={entry.form} name="way" label="How" choices={[...possible]} />
      <TextField
        form={entry.form}
        name="target_reading"
        label="Down to a reading of"
        unit="µS/cm"
        numeric
        hint="Empty: the top of its comfortable range."
      />
      <TextField
        form={entry.form}
        name="weight_g"
        label="Weight now"
        unit="g"
        numeric
        hint="Empty: not weighed. With a drained weight it tells what the first pass fills up."
      />
      <TextField form={entry.form} name="on" label="Day" type="date" />
      <NoteField form={entry.form} name="note" label="Note" hint="Against a hold: why." />
    </EntrySheet>
  )
}
