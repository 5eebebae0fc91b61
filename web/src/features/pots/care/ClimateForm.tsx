import { answer, client, keyed, type Schemas } from "../../../api/client"
import { TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { useUndo } from "../../../ui/useUndo"

/** What the place measured: a night, a day, the medium. */
export function ClimateForm({
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
  const entry = useEntryForm<
    { on: string; night: string; day: string; medium: string; humidity: string },
    Schemas["Stored"]
  >(
    { on: today, night: "", day: "", medium: "", humidity: "" },
    (v, key) =>
      answer(
        client.POST("/api/places/{place_id}/climate", {
          params: { ...keyed(key), path: { place_id: placeId } },
          body: { ...v, note: "" },
        }),
      ),
    (stored) => {
      notice({ text: `${place}: saved.`, undo: () => undo("climate", stored.id) })
      onClose()
    },
  )
  const f = entry.form
  return (
    <EntrySheet entry={entry} title={`Warmth of ${place}`} submit="Save" onCancel={onClose}>
      <TextField form={f} name="on" label="On" type="date" />
      <TextField
        form={f}
        name="night"
        label="Coldest of the night"
        unit="°C"
        numeric
        hint="Empty: not measured."
      />
      <TextField form={f} name="day" label="Warmest of the day" unit="°C" numeric />
      <TextField form={f} name="medium" label="Medium" unit="°C" numeric />
      <TextField form={f} name="humidity" label="Humidity at the warmest" unit="%" numeric />
    </EntrySheet>
  )
}
