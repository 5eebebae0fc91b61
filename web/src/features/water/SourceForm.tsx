import { Mind } from "../../ui/Mind"
import { Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { kindsQuery } from "../../api/waterQueries"
import { SelectField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { useEntryForm } from "../../ui/useEntryForm"
import { type In, type Values, typed } from "./source"

/** A source and what is known of it beside the conductivity; the same form adds and changes. */
export function SourceForm({
  water,
  id,
  onClose,
}: {
  water?: In
  id?: number
  onClose: (id?: number) => void
}) {
  const kinds = useQuery(kindsQuery).data
  const [seen] = useState(water) // as it was opened: the page beside it may be asked for anew meanwhile
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      name: water?.name ?? "",
      kind: water?.kind ?? "rain",
      disinfectant: water?.disinfectant ?? "unknown",
      collected_on: water?.collected_on ?? "",
      preference: water?.preference ?? 100,
      ...typed(water),
    },
    (v, key, theirs) => {
      const body = { ...v, collected_on: v.collected_on || null }
      return id === undefined
        ? answer(client.POST("/api/waters", { params: keyed(key), body }))
        : answer(
            client.PUT("/api/waters/{water_id}", {
              params: { ...keyed(key), path: { water_id: id } },
              body: { ...body, seen: seen ? { ...seen, ...theirs } : null },
            }),
          )
    },
    (stored) => onClose(stored.id),
  )
  const kind = entry.form.watch("kind")
  const note = kinds?.find((k) => k.value === kind)?.note
  const empty = "Leave empty if not measured."
  if (!kinds) return null
  return (
    <EntrySheet
      entry={entry}
      title={id === undefined ? "Add a source" : `Change ${water?.name}`}
      submit="Save the source"
      onCancel={() => onClose()}
    >
      <TextField form={entry.form} name="name" label="Name" placeholder="Rain cistern" />
      <SelectField
        form={entry.form}
        name="kind"
        label="Kind"
        hint={
          kind === "soft" || kind === "softened"
            ? "“Soft” is two things: by nature, or by a softener’s salt. Which is yours?"
            : note
        }
        choices={kinds.map((k) => ({ value: k.value, label: k.label }))}
      />
      <SelectField
        form={entry.form}
        name="disinfectant"
        label="Disinfectant"
        choices={[{ value: "unknown", label: "not known" }, "none", "free chlorine", "chloramine"]}
      />
      <TextField
        form={entry.form}
        name="on_hand_L"
        label="Litres on hand"
        numeric
        hint="Empty if it runs from a pipe."
      />
      <TextField form={entry.form} name="capacity_L" label="Capacity" unit="L" numeric />
      <TextField
        form={entry.form}
        name="collected_on"
        label="Collected on"
        type="date"
        hint="Of this barrel or batch."
      />
      <TextField
        form={entry.form}
        name="price_per_L"
        label="Price per litre"
        numeric
        hint="0 if free; empty if not known."
      />
      <TextField
        form={entry.form}
        name="free_chlorine_mg_L"
        label="Free chlorine"
        unit="mg/L"
        numeric
        hint={empty}
      />
      <TextField
        form={entry.form}
        name="sodium_mg_L"
        label="Sodium"
        unit="mg/L"
        numeric
        hint={empty}
      />
      <TextField
        form={entry.form}
        name="fluoride_mg_L"
        label="Fluoride"
        unit="mg/L"
        numeric
        hint={empty}
      />
      <TextField
        form={entry.form}
        name="hardness_mg_L_CaCO3"
        label="Hardness"
        unit="mg/L CaCO3"
        numeric
        hint={empty}
      />
      <TextField
        form={entry.form}
        name="alkalinity_mg_L_CaCO3"
        label="Alkalinity"
        unit="mg/L CaCO3"
        numeric
        hint={empty}
      />
      <Text fontSize="sm" color="fg.muted">
        Tests and reports entered later stand before what is typed here.
      </Text>
      <Mind of="water" />
    </EntrySheet>
  )
}
