import { answer, client, keyed, type Schemas } from "../../../api/client"
import { useOptions } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useEntryForm } from "../../../ui/useEntryForm"

/** Another plant set into the pot. */
export function AnotherPlant({ potId, onClose }: { potId: number; onClose: () => void }) {
  const kinds = useOptions()?.profiles ?? []
  const entry = useEntryForm<
    {
      profile_id: string
      label: string
      count: string
      source: string
      arrived_on: string
      parent_code: string
      relation: Schemas["PlantMore"]["relation"]
    },
    Schemas["Stored"]
  >(
    {
      profile_id: "unknown",
      label: "",
      count: "1",
      source: "",
      arrived_on: "",
      parent_code: "",
      relation: "division",
    },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/plants", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { ...v, count: Number(v.count) || 1, arrived_on: v.arrived_on || null },
        }),
      ),
    onClose,
  )
  const f = entry.form
  return (
    <EntrySheet entry={entry} title="Another plant" submit="Save" onCancel={onClose}>
      <SelectField form={f} name="profile_id" label="Kind of plant" choices={kinds} />
      <TextField form={f} name="label" label="Name on its label" />
      <TextField form={f} name="count" label="How many alike" numeric />
      <TextField
        form={f}
        name="parent_code"
        label="Came from pot"
        hint="A code, if it is one of yours."
      />
      <SelectField
        form={f}
        name="relation"
        label="As a"
        choices={["division", "cutting", "offset"]}
      />
      <TextField form={f} name="source" label="Or from" placeholder="gift, raised from seed" />
      <TextField form={f} name="arrived_on" label="Arrived on" type="date" />
    </EntrySheet>
  )
}

/** Another shoot or bulb of a plant. */
export function AnotherGrowth({ plantId, onClose }: { plantId: number; onClose: () => void }) {
  const entry = useEntryForm<{ name: string; leads: string }, Schemas["Stored"]>(
    { name: "", leads: "yes" },
    (v, key) =>
      answer(
        client.POST("/api/plants/{plant_id}/growths", {
          params: { ...keyed(key), path: { plant_id: plantId } },
          body: { name: v.name, leads: v.leads === "yes" },
        }),
      ),
    onClose,
  )
  return (
    <EntrySheet entry={entry} title="Another growth" submit="Save" onCancel={onClose}>
      <TextField form={entry.form} name="name" label="Which" placeholder="new bulb, left" />
      <SelectField
        form={entry.form}
        name="leads"
        label="Leads the plant"
        choices={["yes", "no"]}
        hint="The leading growth rules the pot."
      />
    </EntrySheet>
  )
}
