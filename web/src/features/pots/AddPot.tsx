import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useOptions } from "../../api/queries"
import { SelectField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { MediumParts, type PartRow } from "./collection/MediumParts"
import { type Values } from "./addPot"
import { MediumFacts } from "./MediumFacts"
import { PotHistory } from "./PotHistory"
import { yesOrNo } from "../../ui/yesOrNo"
import { hasWaterBelow, WHERE_WATER_GOES } from "./whereWaterGoes"

/** A pot with its plant; what can be derived is filled in. */
export function AddPot({ count, onClose }: { count: number; onClose: () => void }) {
  const options = useOptions()
  const notice = useNotice()
  const [parts, setParts] = useState<PartRow[]>([])
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      code: `P-${String(count + 1).padStart(2, "0")}`,
      name: "",
      profile_id: "unknown",
      medium_id: "bark_mix",
      volume: "",
      top_cm: "",
      height_cm: "",
      drainage: "drains",
      below_L: "",
      interval_days: "6",
      phase: "",
      place: "Home",
      spot: "",
      medium_charged: "",
      medium_limed: "",
      arrived_on: "",
      source: "",
      watered_on: "",
      fed_on: "",
      isolated: false,
      label: "",
      count: "1",
      alike: "1",
      tags: "",
    },
    (v, key) =>
      answer(
        client.POST("/api/pots", {
          params: keyed(key),
          body: {
            ...v,
            plain_every: 4,
            crown: "",
            filled: "",
            count: Number(v.count) || 1,
            alike: Number(v.alike) || 1,
            tags: v.tags
              .split(",")
              .map((t) => t.trim())
              .filter(Boolean),
            medium_parts: parts,
            interval_by: "set",
            school_id: "",
            others: [],
            route: hasWaterBelow(v.drainage) ? v.drainage : "top",
            medium_charged: yesOrNo(v.medium_charged),
            medium_limed: yesOrNo(v.medium_limed),
            arrived_on: v.arrived_on || null,
            watered_on: v.watered_on || null,
            fed_on: v.fed_on || null,
          },
        }),
      ),
    (_, v) => {
      notice({ text: Number(v.alike) > 1 ? `${v.alike} pots are saved.` : `${v.code} is saved.` })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title="Add a pot" submit="Save the pot" onCancel={onClose}>
      <TextField form={entry.form} name="code" label="Code" />
      <TextField
        form={entry.form}
        name="alike"
        label="Pots alike"
        numeric
        hint="Codes count on: P-01, P-02 …"
      />
      <TextField form={entry.form} name="name" label="Name" hint="Empty: called by its kind." />
      <SelectField
        form={entry.form}
        name="profile_id"
        label="Kind of plant"
        choices={options?.profiles ?? []}
      />
      <SelectField
        form={entry.form}
        name="medium_id"
        label="Medium"
        choices={options?.media ?? []}
      />
      <MediumParts parts={parts} onParts={setParts} />
      <TextField
        form={entry.form}
        name="volume"
        label="Pot volume"
        unit="L"
        numeric
        hint="Or diameter and height."
      />
      <TextField form={entry.form} name="top_cm" label="Top diameter" unit="cm" numeric />
      <TextField form={entry.form} name="height_cm" label="Height" unit="cm" numeric />
      <SelectField
        form={entry.form}
        name="drainage"
        label="Where water goes"
        choices={WHERE_WATER_GOES}
      />
      {hasWaterBelow(entry.form.watch("drainage")) && (
        <TextField
          form={entry.form}
          name="below_L"
          label="Tray or reservoir holds"
          unit="L"
          numeric
          hint="To the brim; empty: not known."
        />
      )}
      <TextField form={entry.form} name="interval_days" label="Days between waterings" numeric />
      <SelectField
        form={entry.form}
        name="phase"
        label="Phase"
        choices={[{ value: "", label: "not told: the season says" }, ...(options?.phases ?? [])]}
      />
      <MediumFacts form={entry.form} />
      <TextField form={entry.form} name="place" label="Place" />
      <TextField form={entry.form} name="spot" label="Shelf or spot" />
      <PotHistory form={entry.form} />
    </EntrySheet>
  )
}
