import { useQuery } from "@tanstack/react-query"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { waterQuery } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useEntryForm } from "../../../ui/useEntryForm"

type Values = {
  crown: "" | "dry" | "cup"
  filled: "as it is" | "" | "scarcely"
  soak_min: string
  stand_min: string
  check_most_days: string
  water_id: string
}

/** How it is watered: its crown, how long it is plunged and stands, its one water, the longest it goes unseen. */
export function HandlingForm({ page, onClose }: { page: Schemas["PotPage"]; onClose: () => void }) {
  const waters = useQuery(waterQuery).data?.waters ?? []
  const entry = useEntryForm<Values, Schemas["Changed"]>(
    {
      crown: "",
      filled: "as it is",
      soak_min: "",
      stand_min: "",
      check_most_days: "",
      water_id: "",
    },
    (v, key) =>
      answer(
        client.POST("/api/pots/change", {
          params: keyed(key),
          body: {
            pot_ids: [page.row.id],
            crown: v.crown || null,
            filled: v.filled === "as it is" ? null : v.filled,
            soak_min: v.soak_min || null,
            stand_min: v.stand_min || null,
            check_most_days: v.check_most_days || null,
            water_id: v.water_id === "" ? null : Number(v.water_id),
            add_tags: [],
            remove_tags: [],
          },
        }),
      ),
    onClose,
  )
  const f = entry.form
  return (
    <EntrySheet entry={entry} title="How it is watered" submit="Save" onCancel={onClose}>
      <SelectField
        form={f}
        name="crown"
        label="Crown"
        choices={[
          { value: "", label: "as it is" },
          { value: "dry", label: "kept dry" },
          { value: "cup", label: "a cup, kept filled" },
        ]}
      />
      <SelectField
        form={f}
        name="filled"
        label="How its roots fill the pot"
        choices={[
          { value: "as it is", label: "as it is" },
          { value: "", label: "as usual" },
          { value: "scarcely", label: "scarcely: small plant, large pot" },
        ]}
        hint="Pours follow the plant, not the pot."
      />
      <TextField form={f} name="soak_min" label="Plunged for" unit="min" numeric />
      <TextField
        form={f}
        name="stand_min"
        label="Tipped out after"
        unit="min"
        numeric
        hint="A reminder runs from the pour."
      />
      <TextField
        form={f}
        name="check_most_days"
        label="Looked at least every"
        unit="days"
        numeric
        hint="Whatever its log taught."
      />
      <SelectField
        form={f}
        name="water_id"
        label="Always this water"
        choices={[
          { value: "", label: "as it is" },
          { value: "0", label: "any that is fit" },
          ...waters.map((w) => ({ value: String(w.id), label: w.name })),
        ]}
        hint="For a trial, or a plant that bears only one."
      />
    </EntrySheet>
  )
}
