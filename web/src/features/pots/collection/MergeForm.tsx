import { Text } from "@chakra-ui/react"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { useOptions } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"

type Values = { code: string; on: string; medium_id: string; volume: string; place: string }
type Props = { pots: Schemas["PotRow"][]; today: string; onClose: () => void }

/** Several pots into one new pot; each plant keeps its past. */
export function MergeForm({ pots, today, onClose }: Props) {
  const options = useOptions()
  const notice = useNotice()
  const first = pots[0]
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      code: "",
      on: today,
      medium_id: "bark_mix",
      volume: "",
      place: first?.place ?? "Home",
    },
    (v, key) =>
      answer(
        client.POST("/api/pots/merge", {
          params: keyed(key),
          body: {
            ...v,
            pot_ids: pots.map((p) => p.id),
            profile_id: "unknown",
            interval_days: 7,
            name: "",
            spot: "",
            drainage: "drains",
            route: "top",
            plain_every: 4,
            phase: "",
            source: "",
            isolated: false,
            tags: [],
            medium_parts: [],
            interval_by: "set",
            school_id: "",
            count: 1,
            alike: 1,
            label: "",
            others: [],
            crown: "",
            filled: "",
          },
        }),
      ),
    () => {
      notice({ text: "Put together; the old pots are archived." })
      onClose()
    },
  )
  const f = entry.form
  return (
    <EntrySheet entry={entry} title="Put into one pot" submit="Save" onCancel={onClose}>
      <Text flexBasis="100%!" maxW="none!" color="fg.muted">
        {pots.map((p) => p.code).join(", ")}: every plant keeps its past.
      </Text>
      <TextField form={f} name="code" label="Code of the new pot" />
      <TextField form={f} name="volume" label="Pot volume" unit="L" numeric />
      <SelectField form={f} name="medium_id" label="Medium" choices={options?.media ?? []} />
      <TextField form={f} name="place" label="Place" />
      <TextField form={f} name="on" label="On" type="date" />
    </EntrySheet>
  )
}
