import { useQuery } from "@tanstack/react-query"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { mixQuery } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { PHASE_SCHOOLS } from "../../../ui/phaseSchools"
import { useEntryForm } from "../../../ui/useEntryForm"

type Values = {
  school_id: string
  phase_school: Schemas["CarePage"]["phase_school"]
  interval_by: string
  trial: string
}

const AS_THE_RULE = { value: "", label: "As its kind or place says" }

/** The school a pot follows, how its phase is told, whether its interval is learnt. */
export function CareForm({
  potId,
  care,
  onClose,
}: {
  potId: number
  care: Schemas["CarePage"]
  onClose: () => void
}) {
  const schools = useQuery(mixQuery).data?.schools ?? []
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      school_id: care.school_id ?? "",
      phase_school: care.phase_school,
      interval_by: care.interval_by,
      trial: care.trial,
    },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/care", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { ...v, interval_by: v.interval_by as "set" | "learnt" },
        }),
      ),
    onClose,
  )
  return (
    <EntrySheet entry={entry} title="School and phase" submit="Save" onCancel={onClose}>
      <SelectField
        form={entry.form}
        name="school_id"
        label="Feeding school"
        choices={[
          AS_THE_RULE,
          { value: "own", label: "The pot’s own rhythm" },
          ...schools.map((s) => ({ value: s.school.id, label: s.school.name })),
        ]}
      />
      <SelectField
        form={entry.form}
        name="phase_school"
        label="Phase told"
        choices={[AS_THE_RULE, ...PHASE_SCHOOLS]}
      />
      <SelectField
        form={entry.form}
        name="interval_by"
        label="Days between"
        choices={[
          { value: "set", label: "As I set them" },
          { value: "learnt", label: "Learnt from its log" },
        ]}
      />
      <TextField
        form={entry.form}
        name="trial"
        label="Under trial, if it is"
        hint="What is being tried; all else stays."
      />
    </EntrySheet>
  )
}
