import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useEntryForm } from "../../../ui/useEntryForm"

type Values = {
  on: string
  feed: string
  permeate: string
  permeate_L: string
  concentrate_L: string
}

export function PairForm({
  unit,
  floor,
  today,
  onClose,
}: {
  unit: Schemas["WaterOut"]
  floor: number
  today: string
  onClose: () => void
}) {
  const entry = useEntryForm<Values, Schemas["MembranePage"]>(
    { on: today, feed: "", permeate: "", permeate_L: "", concentrate_L: "" },
    (v, key) =>
      answer(
        client.POST("/api/water/membrane/{water_id}/pairs", {
          params: { ...keyed(key), path: { water_id: unit.id } },
          body: v,
        }),
      ),
    onClose,
  )
  const floorEntry = useEntryForm<{ floor_pct: string }, Schemas["Stored"]>(
    { floor_pct: String(floor) },
    (v, key) =>
      answer(
        client.PUT("/api/water/membrane/{water_id}/floor", {
          params: { ...keyed(key), path: { water_id: unit.id } },
          body: v,
        }),
      ),
    onClose,
  )
  return (
    <>
      <EntrySheet
        entry={entry}
        title={`Feed and permeate of ${unit.name}`}
        submit="Save the pair"
        onCancel={onClose}
      >
        <TextField form={entry.form} name="feed" label="Feed" unit="µS/cm" numeric />
        <TextField
          form={entry.form}
          name="permeate"
          label="Permeate"
          unit="µS/cm"
          numeric
          hint="Same pen, same temperature, after a minute’s run."
        />
        <TextField
          form={entry.form}
          name="permeate_L"
          label="Permeate caught"
          unit="L"
          numeric
          hint="Optional, of one run."
        />
        <TextField
          form={entry.form}
          name="concentrate_L"
          label="Concentrate caught"
          unit="L"
          numeric
          hint="Optional, of the same run."
        />
        <TextField form={entry.form} name="on" label="Date" type="date" />
      </EntrySheet>
      <EntrySheet entry={floorEntry} title="Your floor" submit="Save the floor">
        <TextField
          form={floorEntry.form}
          name="floor_pct"
          label="Replace or inspect below"
          unit="%"
          numeric
        />
      </EntrySheet>
    </>
  )
}
