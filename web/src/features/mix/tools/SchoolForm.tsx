import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { useUndo } from "../../../ui/useUndo"

type Values = {
  name: string
  n_mg_L: string
  n_low_mg_L: string
  n_high_mg_L: string
  cycle: string
  feeds: string
  plain_times: string
  spray_mL: string
}

/** One's own figures of a school; the shipped ones stay beneath and come back on undo. */
export function SchoolForm({
  school: row,
  onClose,
}: {
  school: Schemas["SchoolOut"]
  onClose: () => void
}) {
  const [s] = useState(row.school) // as it was opened: the page beside it may be asked for anew meanwhile
  const notice = useNotice()
  const undo = useUndo()
  const opened: Values = {
    name: s.name,
    n_mg_L: String(s.n_mg_L),
    n_low_mg_L: String(s.n_low_mg_L),
    n_high_mg_L: String(s.n_high_mg_L),
    cycle: String(s.cycle),
    feeds: String(s.feeds),
    plain_times: String(s.plain_times),
    spray_mL: s.spray_mL === null ? "" : String(s.spray_mL),
  }
  const figures = (v: Values) => ({
    ...v,
    cycle: Number(v.cycle),
    feeds: Number(v.feeds),
    route: s.route,
    season: s.season,
    label_share: s.label_share,
    prill_g_L: s.prill_g_L,
    prill_n_pct: s.prill_n_pct,
    prill_days: s.prill_days,
    when: s.when,
  })
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    opened,
    (v, key, theirs) =>
      answer(
        client.PUT("/api/mix/schools/{school_id}", {
          params: { ...keyed(key), path: { school_id: s.id } },
          body: { ...figures(v), seen: { ...figures(opened), ...theirs } },
        }),
      ),
    (stored, v) => {
      notice({
        text: `${v.name}: your figures are in force.`,
        undo: () => undo("school", stored.id),
      })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title={`Edit ${s.name}`} submit="Save my figures" onCancel={onClose}>
      <TextField form={entry.form} name="name" label="Name" />
      <TextField form={entry.form} name="n_mg_L" label="Nitrogen of a feed" unit="mg/L" numeric />
      <TextField form={entry.form} name="n_low_mg_L" label="from" unit="mg/L" numeric />
      <TextField form={entry.form} name="n_high_mg_L" label="to" unit="mg/L" numeric />
      <TextField form={entry.form} name="cycle" label="Waterings in a cycle" numeric />
      <TextField form={entry.form} name="feeds" label="of them with feed" numeric />
      <TextField
        form={entry.form}
        name="plain_times"
        label="A plain one pours"
        unit="times as much"
        numeric
      />
      <TextField
        form={entry.form}
        name="spray_mL"
        label="A spray"
        unit="mL a plant"
        numeric
        hint="Leaf schools only."
      />
    </EntrySheet>
  )
}
