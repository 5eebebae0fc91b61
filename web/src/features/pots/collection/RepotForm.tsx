import { amount } from "../../../ui/format"
import { useState } from "react"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { useOptions } from "../../../api/queries"
import { NoteField, SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { MediumParts, type PartRow } from "./MediumParts"
import { yesOrNo } from "../../../ui/yesOrNo"

type Values = {
  on: string
  medium_id: string
  charged: string
  limed: string
  volume: string
  top_cm: string
  height_cm: string
  note: string
}

/** Repotting as one act: medium, volume, charge; the salt begins anew. */
export function RepotForm({ page, onClose }: { page: Schemas["PotPage"]; onClose: () => void }) {
  const options = useOptions()
  const notice = useNotice()
  const [parts, setParts] = useState<PartRow[]>([])
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      on: page.today,
      medium_id: "",
      charged: "",
      limed: "",
      volume: "",
      top_cm: "",
      height_cm: "",
      note: "",
    },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/repot", {
          params: { ...keyed(key), path: { pot_id: page.row.id } },
          body: {
            ...v,
            volume: v.volume || null,
            top_cm: v.top_cm || null,
            height_cm: v.height_cm || null,
            medium_parts: parts,
            charged: yesOrNo(v.charged),
            limed: yesOrNo(v.limed),
          },
        }),
      ),
    () => {
      notice({ text: "Repotted: its salt begins anew." })
      onClose()
    },
  )
  const f = entry.form
  return (
    <EntrySheet entry={entry} title={`Repot ${page.row.code}`} submit="Save" onCancel={onClose}>
      <TextField form={f} name="on" label="On" type="date" />
      <SelectField
        form={f}
        name="medium_id"
        label="Fresh medium"
        choices={[{ value: "", label: `the same: ${page.medium}` }, ...(options?.media ?? [])]}
      />
      <MediumParts
        parts={parts}
        onParts={setParts}
        volume={f.watch("volume") || String(page.pot_volume_L)}
      />
      <SelectField
        form={f}
        name="charged"
        label="It came with feed in it"
        choices={[{ value: "", label: "not known" }, "no", "yes"]}
        hint="Compost, castings or a bag that feeds: yes."
      />
      <SelectField
        form={f}
        name="limed"
        label="Lime or gypsum in it"
        choices={[{ value: "", label: "not known" }, "no", "yes"]}
      />
      <TextField
        form={f}
        name="volume"
        label="Pot volume"
        unit="L"
        numeric
        hint={`now ${amount(page.pot_volume_L, "L")}`}
      />
      <TextField form={f} name="top_cm" label="Top diameter" unit="cm" numeric />
      <TextField form={f} name="height_cm" label="Height" unit="cm" numeric />
      <NoteField form={f} name="note" label="Note" />
    </EntrySheet>
  )
}
