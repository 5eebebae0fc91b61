import { useNavigate } from "react-router"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { ofOnePot } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { useUndo } from "../../../ui/useUndo"

type Cause = Schemas["DiedIn"]["cause"]
const CAUSES: Cause[] = [
  "not known",
  "rot",
  "dried out",
  "burnt by salt or feed",
  "cold",
  "heat",
  "pests",
  "disease",
  "never settled",
  "at the end of its life",
]

/** Out of the collection: given away, or dead with its cause; the log stays. */
export function DiedForm({ page, onClose }: { page: Schemas["PotPage"]; onClose: () => void }) {
  const { row } = page
  const notice = useNotice()
  const undo = useUndo()
  const navigate = useNavigate()
  const gone = () => {
    notice({
      text: `${row.code} is archived, with all its log.`,
      undo: () => undo("pot", row.id, true),
    })
    void navigate("/pots")
  }
  const entry = useEntryForm<{ cause: string; on: string }, unknown>(
    { cause: "", on: page.today },
    async (v, key) => {
      if (v.cause)
        return answer(
          client.POST("/api/pots/{pot_id}/died", {
            params: { ...keyed(key), path: { pot_id: row.id } },
            body: { on: v.on, cause: v.cause as Cause },
          }),
        )
      return answer(
        client.POST("/api/log/{kind}/{row_id}/archive", {
          params: { ...keyed(key), path: { kind: "pot", row_id: row.id } },
        }),
      )
    },
    gone,
    ofOnePot,
  )
  return (
    <EntrySheet entry={entry} title={`Archive ${row.code}`} submit="Archive it" onCancel={onClose}>
      <SelectField
        form={entry.form}
        name="cause"
        label="Why"
        choices={[
          { value: "", label: "given away, or empty" },
          ...CAUSES.map((c) => ({ value: c, label: `died: ${c}` })),
        ]}
        hint="The log stays, to learn from."
      />
      <TextField form={entry.form} name="on" label="On" type="date" />
    </EntrySheet>
  )
}
