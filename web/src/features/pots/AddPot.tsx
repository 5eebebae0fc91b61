import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useOptions } from "../../api/queries"
import { SelectField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { Folded } from "../../ui/Folded"
import { keepAnswers, lastAnswers } from "../../ui/lastAnswers"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { MediumParts, type PartRow } from "./collection/MediumParts"
import { type Values } from "./addPot"
import { MediumFacts } from "./MediumFacts"
import { PotHistory } from "./PotHistory"
import { yesOrNo } from "../../ui/yesOrNo"
import { PotWater } from "./PotWater"
import { hasWaterBelow } from "./whereWaterGoes"

const FORM = "add-pot"
const NEEDED = ["code", "profile_id", "top_cm"]

/** A pot with its plant in three fields; what can be derived is filled in, what was answered last stands. */
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
      ...(lastAnswers(FORM) as Partial<Values>),
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
      const { medium_id, drainage, interval_days, place, spot } = v
      keepAnswers(FORM, { medium_id, drainage, interval_days, place, spot })
      notice({ text: Number(v.alike) > 1 ? `${v.alike} pots are saved.` : `${v.code} is saved.` })
      onClose()
    },
  )
  const f = entry.form
  return (
    <EntrySheet entry={entry} title="Add a pot" submit="Save the pot" onCancel={onClose}>
      <TextField form={f} name="code" label="Code" />
      <SelectField
        form={f}
        name="profile_id"
        label="Kind of plant"
        choices={options?.profiles ?? []}
      />
      <TextField
        form={f}
        name="top_cm"
        label="Top diameter"
        unit="cm"
        numeric
        hint="Empty: tell litres below."
      />
      <Folded
        name={FORM}
        summary="Medium, place, days, what is known of it"
        form={f}
        always={NEEDED}
      >
        <TextField
          form={f}
          name="alike"
          label="Pots alike"
          numeric
          hint="Codes count on: P-01, P-02 …"
        />
        <TextField form={f} name="name" label="Name" hint="Empty: called by its kind." />
        <SelectField form={f} name="medium_id" label="Medium" choices={options?.media ?? []} />
        <MediumParts parts={parts} onParts={setParts} />
        <TextField
          form={f}
          name="height_cm"
          label="Height"
          unit="cm"
          numeric
          hint="Empty: a usual pot."
        />
        <TextField
          form={f}
          name="volume"
          label="Pot volume"
          unit="L"
          numeric
          hint="Instead of its measures."
        />
        <PotWater form={f} />
        <MediumFacts form={f} />
        <PotHistory form={f} />
      </Folded>
    </EntrySheet>
  )
}
