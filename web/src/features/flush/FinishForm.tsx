import { Text } from "@chakra-ui/react"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { EntrySheet } from "../../ui/EntrySheet"
import { NoteField, SelectField, TextField } from "../../ui/fields"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { yesOrNo } from "../../ui/yesOrNo"

type End = Schemas["FlushEndIn"]
type Values = {
  broken_off: "no" | "yes"
  tray: "" | "no" | "yes"
  went: NonNullable<End["runoff_went"]>
  weight_g: string
  note: string
}

/** The end of a flush: tray, runoff, and whether it is done or still due. */
export function FinishForm({ f, onCancel }: { f: Schemas["FlushOut"]; onCancel?: () => void }) {
  const notice = useNotice()
  const { stop, sentence } = f.live.result
  const entry = useEntryForm<Values, Schemas["FlushOut"]>(
    { broken_off: stop ? "no" : "yes", tray: "", went: "", weight_g: "", note: "" },
    (v, key) =>
      answer(
        client.POST("/api/flushes/{flush_id}/end", {
          params: { ...keyed(key), path: { flush_id: f.id } },
          body: {
            broken_off: v.broken_off === "yes",
            tray_emptied: yesOrNo(v.tray),
            runoff_went: v.went,
            weight_g: v.weight_g,
            note: v.note,
          },
        }),
      ),
    (done) => notice({ text: `${f.code}: ${done.feed_sentence}` }),
  )
  return (
    <EntrySheet
      entry={entry}
      title={stop ? "Done" : "Finish here"}
      submit="Save"
      onCancel={onCancel}
    >
      <Text flex="1 1 100% !important">
        {stop ? sentence : "The target is not reached yet: broken off, it is still due."}
      </Text>
      {!stop && (
        <SelectField
          form={entry.form}
          name="broken_off"
          label="How it ends"
          choices={[
            { value: "yes", label: "broken off, still due" },
            { value: "no", label: "enough as it is" },
          ]}
        />
      )}
      <SelectField
        form={entry.form}
        name="tray"
        label="Saucer or tray tipped out"
        choices={[{ value: "", label: "not said" }, "yes", "no"]}
      />
      <SelectField
        form={entry.form}
        name="went"
        label="The runoff went"
        choices={[
          { value: "", label: "not said" },
          { value: "lawn or bed", label: "on lawn or a tolerant bed" },
          { value: "collected", label: "was collected" },
          { value: "drain", label: "down a drain" },
        ]}
      />
      <TextField
        form={entry.form}
        name="weight_g"
        label="Weight drained"
        unit="g"
        numeric
        hint="Empty: not weighed."
      />
      <NoteField form={entry.form} name="note" label="Note" />
      <Text flex="1 1 100% !important" fontSize="sm" color="fg.muted">
        Not on other pots, carnivores, ponds or storm drains; collect it when pesticides were used.
        Local rules go first.
      </Text>
    </EntrySheet>
  )
}
