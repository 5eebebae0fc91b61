import { answer, client, keyed, type Schemas } from "../../../api/client"
import { TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"

/** "six divisions of P-01": pots that know their mother. */
export function FastAdd({ today, onClose }: { today: string; onClose: () => void }) {
  const notice = useNotice()
  const entry = useEntryForm<{ phrase: string; volume: string; on: string }, Schemas["Added"]>(
    { phrase: "", volume: "", on: today },
    (v, key) => answer(client.POST("/api/pots/fast-add", { params: keyed(key), body: v })),
    (added) => {
      notice({ text: `Saved: ${added.codes.join(", ")}.` })
      onClose()
    },
  )
  return (
    <EntrySheet
      entry={entry}
      title="Divide, cut or take offsets"
      submit="Add the plants"
      onCancel={onClose}
    >
      <TextField
        form={entry.form}
        name="phrase"
        label="What was potted up"
        placeholder="six divisions of P-01"
        hint="Divisions, cuttings or offsets of a pot, by its code."
      />
      <TextField
        form={entry.form}
        name="volume"
        label="Each pot holds"
        unit="L"
        numeric
        hint="Empty: as its mother’s."
      />
      <TextField form={entry.form} name="on" label="Potted on" type="date" />
    </EntrySheet>
  )
}
