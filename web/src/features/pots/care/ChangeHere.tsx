import { answer, client, keyed, type Schemas } from "../../../api/client"
import { useOptions } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { useUndo } from "../../../ui/useUndo"

/** Something that changed at the place: it stands across all lanes of every pot there. */
export function ChangeHere({
  placeId,
  place,
  today,
  onClose,
}: {
  placeId: number
  place: string
  today: string
  onClose: () => void
}) {
  const notice = useNotice()
  const undo = useUndo()
  const kinds = useOptions()?.place_changes ?? ["heating on"]
  const entry = useEntryForm<
    { on: string; kind: Schemas["PlaceChangeIn"]["kind"]; note: string },
    Schemas["Stored"]
  >(
    { on: today, kind: "heating on", note: "" },
    (v, key) =>
      answer(
        client.POST("/api/places/{place_id}/changes", {
          params: { ...keyed(key), path: { place_id: placeId } },
          body: v,
        }),
      ),
    (stored, v) => {
      notice({
        text: `${place}: ${v.kind === "other" ? v.note : v.kind} is saved.`,
        undo: () => undo("event", stored.id),
      })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title={`What changed in ${place}`} submit="Save" onCancel={onClose}>
      <SelectField form={entry.form} name="kind" label="What" choices={kinds} />
      <TextField form={entry.form} name="on" label="On" type="date" />
      <TextField
        form={entry.form}
        name="note"
        label="In a word"
        hint="Whatever you conclude across this day may come from it."
      />
    </EntrySheet>
  )
}
