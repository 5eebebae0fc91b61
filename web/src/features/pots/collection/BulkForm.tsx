import { Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { mixQuery } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { PHASE_SCHOOLS } from "../../../ui/phaseSchools"
import { useEntryForm } from "../../../ui/useEntryForm"
import { yesOrNo } from "../../../ui/yesOrNo"

type Values = {
  place: string
  spot: string
  interval_days: string
  interval_by: string
  school_id: string
  phase_school: string
  isolated: string
  add_tags: string
  remove_tags: string
  behind: string
}
const RULE = "rule"
const AS_THE_RULE = { value: RULE, label: "as kind or place says" }
const AS_IT_IS = { value: "", label: "as it is" }
const EMPTY: Values = {
  place: "",
  spot: "",
  interval_days: "",
  interval_by: "",
  school_id: "",
  phase_school: "",
  isolated: "",
  add_tags: "",
  remove_tags: "",
  behind: "",
}
const tags = (text: string) =>
  text
    .split(",")
    .map((t) => t.trim())
    .filter(Boolean)

/** Change several pots in one go; what stays empty stays as it is. */
export function BulkForm({ pots, onClose }: { pots: Schemas["PotRow"][]; onClose: () => void }) {
  const schools = useQuery(mixQuery).data?.schools ?? []
  const notice = useNotice()
  const entry = useEntryForm<Values, Schemas["Changed"]>(
    EMPTY,
    (v, key) => {
      const body: Schemas["PotChange"] = {
        pot_ids: pots.map((p) => p.id),
        place: v.place || null,
        spot: v.spot || null,
        interval_days: v.interval_days || null,
        interval_by: (v.interval_by || null) as Schemas["PotChange"]["interval_by"],
        school_id: v.school_id === RULE ? "" : v.school_id || null,
        phase_school: (v.phase_school === RULE
          ? ""
          : v.phase_school || null) as Schemas["PotChange"]["phase_school"],
        isolated: yesOrNo(v.isolated),
        add_tags: tags(v.add_tags),
        remove_tags: tags(v.remove_tags),
        behind: v.behind || null,
      }
      return answer(client.POST("/api/pots/change", { params: keyed(key), body }))
    },
    (done) => {
      notice({ text: `${done.ids.length} ${done.ids.length === 1 ? "pot" : "pots"} changed.` })
      onClose()
    },
  )
  const f = entry.form
  return (
    <EntrySheet
      entry={entry}
      title={`Change ${pots.length} ${pots.length === 1 ? "pot" : "pots"}`}
      submit="Save the changes"
      onCancel={onClose}
    >
      <Text flexBasis="100%!" maxW="none!" color="fg.muted">
        {pots.map((p) => p.code).join(", ")}. What stays empty stays as it is.
      </Text>
      <TextField form={f} name="place" label="Place" />
      <TextField form={f} name="spot" label="Shelf or spot" />
      <TextField form={f} name="behind" label="Stands behind" hint="A code; the walk follows." />
      <TextField form={f} name="interval_days" label="Days between waterings" numeric />
      <SelectField
        form={f}
        name="interval_by"
        label="Days between"
        choices={[
          AS_IT_IS,
          { value: "set", label: "as set" },
          { value: "learnt", label: "learnt from each log" },
        ]}
      />
      <SelectField
        form={f}
        name="school_id"
        label="Feeding school"
        choices={[
          AS_IT_IS,
          AS_THE_RULE,
          { value: "own", label: "each pot’s own rhythm" },
          ...schools.map((s) => ({ value: s.school.id, label: s.school.name })),
        ]}
      />
      <SelectField
        form={f}
        name="phase_school"
        label="Phase told"
        choices={[AS_IT_IS, AS_THE_RULE, ...PHASE_SCHOOLS]}
      />
      <SelectField form={f} name="isolated" label="Isolated" choices={[AS_IT_IS, "yes", "no"]} />
      <TextField form={f} name="add_tags" label="Add tags" hint="With commas between." />
      <TextField form={f} name="remove_tags" label="Take tags off" />
    </EntrySheet>
  )
}
