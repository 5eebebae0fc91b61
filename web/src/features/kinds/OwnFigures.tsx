import { answer, client, keyed, type Schemas } from "../../api/client"
import { EntrySheet, NoteField, TextField } from "../../ui/fields"
import { useEntryForm } from "../../ui/useEntryForm"
import type { KindData } from "./loadKind"

type Values = { water_max: string; reading_low: string; reading_high: string; reading_ceiling: string; word: string }

/** Your own figures of a kind; what stays empty stays as it is. */
export function OwnFigures({ page, plantId, onClose }: { page: KindData; plantId?: number; onClose: () => void }) {
  const { source_water: w, root_zone: z } = page.profile
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    { water_max: "", reading_low: "", reading_high: "", reading_ceiling: "", word: "" },
    (v, key) => answer(client.POST("/api/kinds/{profile_id}/own", { params: { ...keyed(key), path: { profile_id: page.profile.id } }, body: { ...v, plant_id: plantId ?? null } })),
    onClose,
  )
  return (
    <EntrySheet entry={entry} title={plantId === undefined ? "My own figures" : "Limits of this plant"} submit="Use them" onCancel={onClose}>
      <TextField form={entry.form} name="water_max" label="Water, at most" unit="µS/cm" numeric hint={`now ${w.ec_max_uS_cm}`} />
      <TextField form={entry.form} name="reading_low" label="Comfortable from" unit="µS/cm" numeric hint={`now ${z.ec_ideal_uS_cm[0]}, a reading`} />
      <TextField form={entry.form} name="reading_high" label="Comfortable to" unit="µS/cm" numeric hint={`now ${z.ec_ideal_uS_cm[1]}`} />
      <TextField form={entry.form} name="reading_ceiling" label="Ceiling" unit="µS/cm" numeric hint={`now ${z.ec_ceiling_uS_cm}`} />
      <NoteField form={entry.form} name="word" label="Why, in a word" />
    </EntrySheet>
  )
}
