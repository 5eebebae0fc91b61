import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useOptions } from "../../api/queries"
import { NoteField, SelectField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { useEntryForm } from "../../ui/useEntryForm"

type Values = { phase: Schemas["PhaseIn"]["phase"]; since: string; note: string }

/** A new phase of the leading growth; it rules feed and water. */
export function PhaseForm({
  potId,
  phase,
  today,
  onClose,
}: {
  potId: number
  phase: string
  today: string
  onClose: () => void
}) {
  const phases = useOptions()?.phases ?? ["active"]
  const entry = useEntryForm<Values, Schemas["PhaseOut"]>(
    { phase: phase as Values["phase"], since: today, note: "" },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/phase", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: v,
        }),
      ),
    onClose,
  )
  return (
    <EntrySheet entry={entry} title="Note a phase" submit="Save the phase" onCancel={onClose}>
      <SelectField form={entry.form} name="phase" label="Phase" choices={phases} />
      <TextField form={entry.form} name="since" label="Since" type="date" />
      <NoteField form={entry.form} name="note" label="Note" />
    </EntrySheet>
  )
}
