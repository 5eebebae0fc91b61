import { answer, client, keyed, type Schemas } from "../../../api/client"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useEntryForm } from "../../../ui/useEntryForm"

type Values = {
  what: string
  unit: Schemas["RampIn"]["unit"]
  start_on: string
  start: string
  step: string
  target: string
  every_days: string
}
type Props = { potId: number; today: string; onClose: () => void }

/** Settling in by steps: a bag opened quarter by quarter, lamps hour by hour. */
export function RampForm({ potId, today, onClose }: Props) {
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      what: "bag",
      unit: "quarters",
      start_on: today,
      start: "1",
      step: "1",
      target: "4",
      every_days: "2",
    },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/ramps", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { ...v, every_days: Number(v.every_days) || 2 },
        }),
      ),
    onClose,
  )
  const f = entry.form
  return (
    <EntrySheet entry={entry} title="Settle in by steps" submit="Save" onCancel={onClose}>
      <TextField form={f} name="what" label="What is stepped" hint="A bag, lamps, humidity." />
      <SelectField
        form={f}
        name="unit"
        label="Counted in"
        choices={[
          { value: "quarters", label: "quarters open" },
          { value: "h", label: "hours of lamps" },
          { value: "%", label: "% humidity" },
          { value: "", label: "steps" },
        ]}
      />
      <TextField form={f} name="start_on" label="From" type="date" />
      <TextField form={f} name="start" label="Start" numeric />
      <TextField form={f} name="step" label="Step" numeric />
      <TextField form={f} name="target" label="Target" numeric />
      <TextField
        form={f}
        name="every_days"
        label="Every"
        unit="days"
        numeric
        hint="A look that finds it limp takes it back; two firm looks let it go on."
      />
    </EntrySheet>
  )
}
