import { amount } from "../../../ui/format"
import { useState } from "react"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { useOptions } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { MediumParts, type PartRow } from "./MediumParts"
import { type Change, seenOf, type Values } from "./change"
import { yesOrNo } from "../../../ui/yesOrNo"
import { hasWaterBelow, WHERE_WATER_GOES } from "../whereWaterGoes"

/** Change what a pot is; what stays empty stays as it is. */
export function ChangePot({ page, onClose }: { page: Schemas["PotPage"]; onClose: () => void }) {
  const { row } = page
  const options = useOptions()
  const notice = useNotice()
  const [parts, setParts] = useState<PartRow[]>([])
  const [seen] = useState(() => seenOf(row))
  const entry = useEntryForm<Values, Schemas["Changed"]>(
    {
      code: seen.code,
      name: seen.name,
      place: seen.place,
      spot: seen.spot,
      volume: "",
      top_cm: "",
      height_cm: "",
      medium_id: "",
      medium_since: "",
      medium_charged: "",
      medium_limed: "",
      drainage: row.drainage,
      below_L: "",
      route: row.route,
      interval_days: "",
      isolated: row.isolated ? "yes" : "no",
      add_tags: "",
      remove_tags: "",
    },
    (v, key, theirs) => {
      const tags = (text: string) =>
        text
          .split(",")
          .map((t) => t.trim())
          .filter(Boolean)
      const body: Change = {
        pot_ids: [row.id],
        code: v.code,
        name: v.name,
        place: v.place,
        spot: v.spot,
        volume: v.volume || null,
        top_cm: v.top_cm || null,
        height_cm: v.height_cm || null,
        medium_id: v.medium_id || null,
        medium_parts: parts.length > 0 ? parts : null,
        medium_since: v.medium_since || null,
        medium_charged: yesOrNo(v.medium_charged),
        medium_limed: yesOrNo(v.medium_limed),
        drainage: v.drainage as Change["drainage"],
        below_L: v.below_L || null,
        route: v.route as Change["route"],
        interval_days: v.interval_days || null,
        isolated: v.isolated === "yes",
        add_tags: tags(v.add_tags),
        remove_tags: tags(v.remove_tags),
        seen: { ...seen, ...theirs },
      }
      return answer(client.POST("/api/pots/change", { params: keyed(key), body }))
    },
    () => {
      notice({ text: "The pot is changed." })
      onClose()
    },
  )
  const f = entry.form
  return (
    <EntrySheet
      entry={entry}
      title={`Change ${row.code}`}
      submit="Save the change"
      onCancel={onClose}
    >
      <TextField form={f} name="code" label="Code" />
      <TextField form={f} name="name" label="Name" />
      <TextField form={f} name="place" label="Place" />
      <TextField form={f} name="spot" label="Shelf or spot" />
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
      <SelectField
        form={f}
        name="medium_id"
        label="Medium"
        choices={[{ value: "", label: `as it is: ${page.medium}` }, ...(options?.media ?? [])]}
      />
      <MediumParts parts={parts} onParts={setParts} />
      <TextField
        form={f}
        name="medium_since"
        label="Repotted on"
        type="date"
        hint="Feed waits until it has settled."
      />
      <SelectField
        form={f}
        name="medium_charged"
        label="Medium came with feed in it"
        choices={[{ value: "", label: "as it is" }, "no", "yes"]}
      />
      <SelectField
        form={f}
        name="medium_limed"
        label="Lime or gypsum in it"
        choices={[{ value: "", label: "as it is" }, "no", "yes"]}
      />
      <SelectField form={f} name="drainage" label="Where water goes" choices={WHERE_WATER_GOES} />
      {hasWaterBelow(f.watch("drainage")) && (
        <TextField form={f} name="below_L" label="Tray or reservoir holds" unit="L" numeric />
      )}
      <SelectField form={f} name="route" label="Watered" choices={options?.routes ?? [row.route]} />
      <TextField
        form={f}
        name="interval_days"
        label="Days between waterings"
        numeric
        hint={`now ${page.interval_days}`}
      />
      <SelectField form={f} name="isolated" label="Isolated" choices={["no", "yes"]} />
      <TextField
        form={f}
        name="add_tags"
        label="Add tags"
        hint={row.tags.length ? `has ${row.tags.join(", ")}` : "With commas between."}
      />
      <TextField form={f} name="remove_tags" label="Take tags off" />
    </EntrySheet>
  )
}
