import { useState } from "react"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { NoteField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { useEntryForm } from "../../ui/useEntryForm"
import type { KindData } from "./loadKind"
import { OwnGate } from "./OwnGate"
import { type Values, EMPTY } from "./ownFigures"

/** Your own figures of a kind; what stays empty stays as it is. */
export function OwnFigures({
  page,
  plantId,
  onClose,
}: {
  page: KindData
  plantId?: number
  onClose: () => void
}) {
  const { source_water: w, root_zone: z, climate, flush, carnivore, rest } = page.profile
  const [seen] = useState(page.limits) // as it was opened: the page beside it may be asked for anew meanwhile
  const fed = carnivore ? undefined : page.profile.phases.active
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    EMPTY,
    (v, key, theirs) =>
      answer(
        client.POST("/api/kinds/{profile_id}/own", {
          params: { ...keyed(key), path: { profile_id: page.profile.id } },
          body: { ...v, plant_id: plantId ?? null, seen: { ...seen, ...theirs } },
        }),
      ),
    onClose,
  )
  return (
    <EntrySheet
      entry={entry}
      title={plantId === undefined ? "My own figures" : "Limits of this plant"}
      submit="Save the figures"
      onCancel={onClose}
    >
      <TextField
        form={entry.form}
        name="water_max"
        label="Water, at most"
        unit="µS/cm"
        numeric
        hint={`now ${w.ec_max_uS_cm}`}
      />
      <TextField
        form={entry.form}
        name="reading_low"
        label="Comfortable from"
        unit="µS/cm"
        numeric
        hint={`now ${z.ec_ideal_uS_cm[0]}, a reading`}
      />
      <TextField
        form={entry.form}
        name="reading_high"
        label="Comfortable to"
        unit="µS/cm"
        numeric
        hint={`now ${z.ec_ideal_uS_cm[1]}`}
      />
      <TextField
        form={entry.form}
        name="reading_ceiling"
        label="Ceiling"
        unit="µS/cm"
        numeric
        hint={`now ${z.ec_ceiling_uS_cm}`}
      />
      {fed && (
        <TextField
          form={entry.form}
          name="nitrogen_low"
          label="Feed while active, from"
          unit="mg/L N"
          numeric
          hint={`now ${fed.n_ideal_mg_L[0]}`}
        />
      )}
      {fed && (
        <TextField
          form={entry.form}
          name="nitrogen_high"
          label="to"
          unit="mg/L N"
          numeric
          hint={`now ${fed.n_ideal_mg_L[1]}`}
        />
      )}
      {fed && (
        <TextField
          form={entry.form}
          name="feed_ceiling"
          label="Feed, at most"
          unit="µS/cm"
          numeric
          hint={`now ${fed.ec_ceiling_uS_cm ?? "not told"}`}
        />
      )}
      <TextField
        form={entry.form}
        name="alkalinity_max"
        label="Alkalinity, at most"
        unit="mg/L CaCO3"
        numeric
        hint={`now ${w.alkalinity_ceiling_mg_L}`}
      />
      <TextField
        form={entry.form}
        name="minimum_C"
        label="Never below"
        unit="°C"
        numeric
        hint={`now ${climate.minimum_C}`}
      />
      <TextField
        form={entry.form}
        name="flush_each_days"
        label="Flush each"
        unit="days"
        numeric
        hint={`now ${flush.cadence_days?.join(" to ") ?? "by salt alone"}`}
      />
      {rest.kind !== "none" && <OwnGate form={entry.form} rest={rest} />}
      <NoteField form={entry.form} name="word" label="Why, in a word" />
    </EntrySheet>
  )
}
