import { Mind } from "../../../ui/Mind"
import { Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useEntryForm } from "../../../ui/useEntryForm"

const placesQuery = queryOptions({
  queryKey: ["pots", "places"],
  queryFn: () => answer(client.GET("/api/places")),
})

/** Where the place lies and what light it has: it rules season and drying. */
export function PlaceForm({ placeId, onClose }: { placeId: number; onClose: () => void }) {
  const place = useQuery(placesQuery).data?.find((p) => p.id === placeId)
  return place ? (
    <Seasons place={place} onClose={onClose} />
  ) : (
    <Text role="status">One moment.</Text>
  )
}

function Seasons({ place, onClose }: { place: Schemas["PlaceOut"]; onClose: () => void }) {
  const typed = (v: number | null) => (v === null ? "" : String(v))
  const entry = useEntryForm<
    {
      hemisphere: string
      latitude_deg: string
      lamp_hours: string
      lamp_dli: string
      lamps_off: string
    },
    Schemas["Stored"]
  >(
    {
      hemisphere: place.hemisphere,
      latitude_deg: typed(place.latitude_deg),
      lamp_hours: typed(place.lamp_hours),
      lamp_dli: typed(place.lamp_dli),
      lamps_off: place.lamps_off,
    },
    (v, key) =>
      answer(
        client.POST("/api/places/{place_id}", {
          params: { ...keyed(key), path: { place_id: place.id } },
          body: { ...v, hemisphere: v.hemisphere as Schemas["PlaceOut"]["hemisphere"] },
        }),
      ),
    onClose,
  )
  return (
    <EntrySheet entry={entry} title={`Seasons of ${place.name}`} submit="Save" onCancel={onClose}>
      <SelectField
        form={entry.form}
        name="hemisphere"
        label="Seasons"
        choices={[
          { value: "north", label: "northern" },
          { value: "south", label: "southern" },
          { value: "none", label: "no seasons" },
        ]}
      />
      <TextField
        form={entry.form}
        name="latitude_deg"
        label="Latitude"
        unit="°"
        numeric
        hint="South is below 0. If known, it rules."
      />
      <TextField form={entry.form} name="lamp_hours" label="Lamps a day" unit="h" numeric />
      <TextField form={entry.form} name="lamps_off" label="Lamps out at" type="time" />
      <TextField form={entry.form} name="lamp_dli" label="Lamp light" unit="mol/m²/day" numeric />
      <Mind of="lamp" />
    </EntrySheet>
  )
}
