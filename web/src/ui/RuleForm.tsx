import { Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { answer, client, keyed, type Schemas } from "../api/client"
import { mixQuery } from "../api/queries"
import { SelectField } from "./fields"
import { EntrySheet } from "./EntrySheet"
import { PHASE_SCHOOLS } from "./phaseSchools"
import { useEntryForm } from "./useEntryForm"

type Rule = Schemas["RuleIn"]
const rulesQuery = queryOptions({
  queryKey: ["rules"],
  queryFn: () => answer(client.GET("/api/rules")),
})

/** School and way to tell the phase for a kind, a group or a place; a pot's own choice stands before it. */
export function RuleForm({
  scope,
  ruleKey,
  of,
  onClose,
}: {
  scope: Rule["scope"]
  ruleKey: string
  of: string
  onClose: () => void
}) {
  const rules = useQuery(rulesQuery).data
  const schools = useQuery(mixQuery).data?.schools
  if (!rules || !schools) return <Text role="status">One moment.</Text>
  return (
    <Open
      scope={scope}
      ruleKey={ruleKey}
      of={of}
      onClose={onClose}
      now={rules.find((r) => r.scope === scope && r.key === ruleKey)}
      schools={schools}
    />
  )
}

type OpenProps = {
  scope: Rule["scope"]
  ruleKey: string
  of: string
  onClose: () => void
  now: Rule | undefined
  schools: Schemas["MixPage"]["schools"]
}

function Open({ scope, ruleKey, of, onClose, now, schools }: OpenProps) {
  const entry = useEntryForm<
    { school_id: string; phase_school: NonNullable<Rule["phase_school"]> },
    Schemas["Stored"]
  >(
    { school_id: now?.school_id ?? "", phase_school: now?.phase_school ?? "" },
    (v, key) =>
      answer(
        client.POST("/api/rules", { params: keyed(key), body: { scope, key: ruleKey, ...v } }),
      ),
    onClose,
  )
  return (
    <EntrySheet
      entry={entry}
      title={`Rule for all of ${of}`}
      submit="Save the rule"
      onCancel={onClose}
    >
      <SelectField
        form={entry.form}
        name="school_id"
        label="Feeding school"
        choices={[
          { value: "", label: "no rule" },
          ...schools.map((s) => ({ value: s.school.id, label: s.school.name })),
        ]}
        hint="What a pot chose itself stands before it."
      />
      <SelectField
        form={entry.form}
        name="phase_school"
        label="Phase told"
        choices={[{ value: "", label: "no rule" }, ...PHASE_SCHOOLS]}
      />
    </EntrySheet>
  )
}
