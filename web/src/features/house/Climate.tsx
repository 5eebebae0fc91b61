import { Box, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { answer, client, type Schemas } from "../../api/client"
import { Choice } from "../../ui/Choice"
import { day, figure, span } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { AirDrawing } from "./AirDrawing"
import { LightForm } from "./LightForm"
import { LoggerForm } from "./LoggerForm"

const placesQuery = queryOptions({
  queryKey: ["places"],
  queryFn: () => answer(client.GET("/api/places")),
})
const airQuery = (place_id: number) =>
  queryOptions({
    queryKey: ["places", "air", place_id],
    queryFn: () =>
      answer(client.GET("/api/places/{place_id}/air", { params: { path: { place_id } } })),
  })

/** The air of each place, from loggers and from what was typed. */
export function Climate() {
  const places = useQuery(placesQuery).data ?? []
  const [chosen, setChosen] = useState<number | null>(null)
  const id = chosen ?? places[0]?.id
  if (id === undefined) return null
  return (
    <Card title="Air and light of a place" gridColumn="1 / -1">
      <Choice
        label="Place"
        value={String(id)}
        onValue={(v) => setChosen(Number(v))}
        choices={places.map((p) => ({ value: String(p.id), label: p.name }))}
      />
      <Place key={id} id={id} />
    </Card>
  )
}

function Place({ id }: { id: number }) {
  const air = useQuery(airQuery(id)).data
  if (!air) return null
  const last = air.days.at(-1)
  return (
    <Box mt="2">
      <AirDrawing days={air.days} />
      <Text>
        {last ? (
          <Newest last={last} today={air.today} />
        ) : (
          "Nothing was measured here in two months. "
        )}
        {air.deficit && (
          <>
            Vapour deficit{" "}
            <Quantity
              label="Vapour pressure deficit"
              value={air.deficit.result.deficit_kPa}
              unit="kPa"
              working={{ kind: "here", working: air.deficit.working }}
            />
            .{" "}
          </>
        )}
        {air.daylight && (
          <>
            Daylight{" "}
            <Quantity
              label="Daylight"
              value={air.daylight.result.hours}
              unit="h"
              working={{ kind: "here", working: air.daylight.working }}
            />
            .{" "}
          </>
        )}
        {air.lamp_hours !== null && `Lamp ${figure(air.lamp_hours)} h`}
        {air.lamp_dli !== null && `, ${figure(air.lamp_dli)} mol/m² a day`}
      </Text>
      <LoggerForm air={air} />
      <LightForm placeId={id} />
    </Box>
  )
}

function Newest({ last, today }: { last: Schemas["AirDay"]; today: string }) {
  const range = (low: number | null, high: number | null, unit: string) =>
    low === null || high === null ? "" : `${figure(low)} to ${figure(high)} ${unit}`
  const words = [
    last.night_C === null || last.day_C === null ? "" : span(last.night_C, last.day_C, "°C"),
    range(last.humidity_low_pct, last.humidity_high_pct, "% humidity") ||
      (last.humidity_pct === null ? "" : `${figure(last.humidity_pct)} % humidity`),
    last.hours_dry ? `${figure(last.hours_dry)} dry hours` : "",
    last.origin === "logger" ? "by logger" : "typed",
  ]
  return (
    <>
      {day(last.on, today)}: {words.filter(Boolean).join(", ")}.{" "}
    </>
  )
}
