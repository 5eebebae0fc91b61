import { useQuery } from "@tanstack/react-query"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { waterQuery } from "../../api/queries"
import { EntrySheet } from "../../ui/EntrySheet"
import { SelectField, TextField } from "../../ui/fields"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"

type Props = { potId: number; today: string; onClose: () => void }

/** The level of a tray or reservoir as read. */
export function LevelForm({ potId, today, onClose }: Props) {
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<{ level: string; on: string }, Schemas["Stored"]>(
    { level: "", on: today },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/levels", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { ...v, did: "read", unit: "mL", note: "" },
        }),
      ),
    (r) => {
      notice({ text: "The level is saved.", undo: () => undo("level", r.id) })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title="Level" submit="Save" onCancel={onClose}>
      <TextField form={entry.form} name="level" label="Level" unit="mL" numeric />
      <TextField form={entry.form} name="on" label="Date" type="date" />
    </EntrySheet>
  )
}

/** The water tipped out and filled afresh. */
export function ChangeForm({ potId, today, onClose }: Props) {
  const notice = useNotice()
  const undo = useUndo()
  const waters = useQuery(waterQuery).data?.waters ?? []
  const entry = useEntryForm<
    { water_id: string; volume: string; on: string },
    Schemas["WaterChanged"]
  >(
    { water_id: String(waters[0]?.id ?? ""), volume: "", on: today },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/water-changes", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { on: v.on, volume: v.volume, water_id: Number(v.water_id), unit: "mL" },
        }),
      ),
    (r) => {
      notice({
        text: "The change is saved.",
        undo: () => {
          undo("pour", r.id)
          undo("level", r.level_id)
        },
      })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title="Change the water" submit="Save" onCancel={onClose}>
      <SelectField
        form={entry.form}
        name="water_id"
        label="Filled with"
        choices={waters.map((w) => ({ value: String(w.id), label: w.name }))}
      />
      <TextField form={entry.form} name="volume" label="How much" unit="mL" numeric />
      <TextField form={entry.form} name="on" label="Date" type="date" />
    </EntrySheet>
  )
}
