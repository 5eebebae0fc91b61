import { Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useOptions } from "../../api/queries"
import { EntrySheet, NoteField, TextField, TickField } from "../../ui/fields"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"

type Mark = NonNullable<Schemas["LookIn"]["marks"]>[number]
type Values = { on: string; leaves_count: string; newest_leaf: string; new_leaf: boolean; marks: Mark[]; none: boolean; note: string }

const WORDS: Record<string, string> = { tip: "brown tip", rim: "brown rim", spot: "spots", "yellow oldest": "oldest leaf yellow", crust: "white crust" }

/** Leaves counted, the newest measured, marks: what a look sees. */
export function LookForm({ potId, last, today, onClose }: { potId: number; last?: Schemas["LookOut"]; today: string; onClose: () => void }) {
  const marks = useOptions()?.marks ?? []
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<Values, Schemas["LookOut"]>(
    { on: today, leaves_count: last?.leaves_count != null ? String(last.leaves_count) : "", newest_leaf: "", new_leaf: false, marks: [], none: false, note: "" },
    (v, key) =>
      answer(client.POST("/api/pots/{pot_id}/looks", {
        params: { ...keyed(key), path: { pot_id: potId } },
        body: { on: v.on, leaves_count: v.leaves_count, newest_leaf: v.newest_leaf, newest_leaf_unit: "mm", new_leaf: v.new_leaf, marks: v.marks || [], marks_looked_for: v.none || (v.marks || []).length > 0, unknown: [], note: v.note },
      })),
    (look) => {
      notice({ text: "The look is kept.", undo: () => undo("look", look.id) })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title="Log a look" submit="Keep the look" onCancel={onClose}>
      <TextField form={entry.form} name="leaves_count" label="Leaves counted" numeric hint="Empty: not counted." />
      <TextField form={entry.form} name="newest_leaf" label="Newest leaf" unit="mm" numeric hint="Empty: not measured." />
      <TickField form={entry.form} name="new_leaf" label="A new leaf since the last look" />
      <fieldset>
        <Text as="legend" fontSize="sm" fontWeight="medium">Marks</Text>
        <Flex direction="column">
          {marks.map((m) => <TickField key={m} form={entry.form} name="marks" value={m} label={WORDS[m] ?? m} />)}
          <TickField form={entry.form} name="none" label="looked for, none seen" />
        </Flex>
      </fieldset>
      <TextField form={entry.form} name="on" label="Date" type="date" />
      <NoteField form={entry.form} name="note" label="Note" />
    </EntrySheet>
  )
}
