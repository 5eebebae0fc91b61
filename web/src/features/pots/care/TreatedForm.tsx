import { Mind } from "../../../ui/Mind"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { useUndo } from "../../../ui/useUndo"

/** Leaves treated with something: no leaf spray until its label allows one. */
export function TreatedForm({
  potId,
  today,
  onClose,
}: {
  potId: number
  today: string
  onClose: () => void
}) {
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<{ on: string; days: string; note: string }, Schemas["Stored"]>(
    { on: today, days: "2", note: "" },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/treated", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: v,
        }),
      ),
    (stored) => {
      notice({
        text: "The treatment is saved; leaf sprays wait.",
        undo: () => undo("event", stored.id),
      })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title="Leaves treated" submit="Save" onCancel={onClose}>
      <TextField form={entry.form} name="note" label="With what" />
      <TextField form={entry.form} name="days" label="Its label asks to wait" unit="days" numeric />
      <TextField form={entry.form} name="on" label="On" type="date" />
      <Mind of="treatment" />
    </EntrySheet>
  )
}
