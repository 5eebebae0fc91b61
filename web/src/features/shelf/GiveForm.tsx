import { useQuery } from "@tanstack/react-query"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { mixQuery } from "../../api/queries"
import { NoteField, SelectField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"

type Values = { pot_id: string; on: string; amount: string; unit: string; note: string }

/** Prey, castings or prills given to a pot: recorded without a strength. */
export function GiveForm({
  product,
  today,
  onClose,
}: {
  product: Schemas["ProductOut"]
  today: string
  onClose: () => void
}) {
  const pots = useQuery(mixQuery).data?.pots ?? []
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      pot_id: "",
      on: today,
      amount: "",
      unit: product.label.kind === "prill" ? "g" : "items",
      note: "",
    },
    (v, key) =>
      answer(
        client.POST("/api/feedings", {
          params: keyed(key),
          body: {
            pot_ids: v.pot_id ? [Number(v.pot_id)] : [],
            product_id: product.id,
            on: v.on,
            amount: v.amount,
            unit: v.unit,
            note: v.note,
          },
        }),
      ),
    (stored) => {
      notice({ text: `${product.name} is recorded.`, undo: () => undo("feeding", stored.id) })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title={`Give ${product.name}`} submit="Save" onCancel={onClose}>
      <SelectField
        form={entry.form}
        name="pot_id"
        label="To pot"
        choices={[
          { value: "", label: "choose a pot" },
          ...pots.map((p) => ({ value: String(p.id), label: `${p.code} ${p.name}` })),
        ]}
      />
      <TextField form={entry.form} name="on" label="Date" type="date" />
      <TextField
        form={entry.form}
        name="amount"
        label="Amount"
        numeric
        hint="Empty: not counted."
      />
      <SelectField
        form={entry.form}
        name="unit"
        label="Counted in"
        choices={["items", "g", "mL", "spoons"]}
      />
      <NoteField form={entry.form} name="note" label="Note" />
    </EntrySheet>
  )
}
