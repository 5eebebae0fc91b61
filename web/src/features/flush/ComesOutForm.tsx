import { answer, client, keyed, type Schemas } from "../../api/client"
import { useOptions } from "../../api/queries"
import { EntrySheet } from "../../ui/EntrySheet"
import { NoteField, SelectField, TextField } from "../../ui/fields"
import { useNotice } from "../../ui/noticeContext"
import { PenReader } from "../../ui/PenReader"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"

type In = Schemas["ComesOutIn"]
type Values = {
  on: string
  method: NonNullable<In["method"]>
  ec: string
  pH: string
  crust: NonNullable<In["crust"]>
  colour: NonNullable<In["colour"]>
  moist: "" | NonNullable<In["moist"]>
  note: string
}

/** What came out of a pot between pours, or what is seen without a meter. */
export function ComesOutForm({
  potId,
  code,
  today,
  drains,
  onClose,
}: {
  potId: number
  code: string
  today: string
  drains: boolean
  onClose: () => void
}) {
  const options = useOptions()
  const notice = useNotice()
  const undo = useUndo()
  const alone = (options?.runoff_methods ?? []).filter((m) =>
    ["pour-through", "squeezed", "reservoir"].includes(m.value),
  )
  const entry = useEntryForm<Values, Schemas["ComesOutStored"]>(
    {
      on: today,
      method: drains ? "pour-through" : "reservoir",
      ec: "",
      pH: "",
      crust: "",
      colour: "",
      moist: "",
      note: "",
    },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/readings", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { ...v, moist: v.moist || null, unit: "µS/cm" },
        }),
      ),
    (r) => {
      notice({
        text: `${code}: the reading is saved.`,
        undo: () => {
          if (r.id !== null) undo("runoff", r.id)
          if (r.felt_id !== null) undo("felt", r.felt_id)
        },
      })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title={`What came out of ${code}`} submit="Save" onCancel={onClose}>
      <TextField form={entry.form} name="ec" label="Reading" unit="µS/cm" numeric />
      <SelectField form={entry.form} name="method" label="How it was caught" choices={alone} />
      <TextField form={entry.form} name="pH" label="pH" numeric hint="Empty: not measured." />
      <SelectField
        form={entry.form}
        name="crust"
        label="Crust on rim or surface"
        choices={[{ value: "", label: "not looked" }, "none", "trace", "clear"]}
      />
      <SelectField
        form={entry.form}
        name="colour"
        label="Colour of the runoff"
        choices={[{ value: "", label: "not looked" }, "clear", "tinted", "brown"]}
      />
      <SelectField
        form={entry.form}
        name="moist"
        label="The medium to the finger"
        choices={[{ value: "", label: "not felt" }, ...(options?.moist ?? [])]}
      />
      <TextField form={entry.form} name="on" label="Date" type="date" />
      <NoteField form={entry.form} name="note" label="Note" />
      <PenReader
        into={{ pot_id: potId }}
        onValue={(v) => entry.form.setValue("ec", String(Math.round(v.corrected)))}
      />
    </EntrySheet>
  )
}
