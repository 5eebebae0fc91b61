import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { useQuantities } from "../../api/waterQueries"
import { amount, ago, day, figure, numberIn, inReader, unitName } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { LineChart } from "./LineChart"
import { SourceForm } from "./SourceForm"
import { TreatmentForm } from "./TreatmentForm"
import { Treatments } from "./Treatments"
import { Readings, Refused } from "./SourceReadings"

type Props = { water: Schemas["WaterOut"]; today: string }

const usualOf = async (water_id: number) =>
  (await answer(client.GET("/api/waters/{water_id}/usual", { params: { path: { water_id } } })))
    .working

/** The chosen source: newest reading with its working, how it went, what is known and not known. */
export function SourceCard({ water, today }: Props) {
  const [open, setOpen] = useState<"change" | "step" | null>(null)
  const last = water.history.find((r) => r.ec25_uS_cm !== null)
  const known = water.history.filter((r) => r.ec25_uS_cm !== null).toReversed()
  const stock = [
    water.on_hand_L !== null ? `${amount(water.on_hand_L, "L")} on hand` : "",
    water.capacity_L !== null ? `of ${amount(water.capacity_L, "L")}` : "",
    water.collected_on ? `collected ${day(water.collected_on, today)}` : "",
  ]
    .filter(Boolean)
    .join(" ")
  return (
    <Card title={water.name}>
      <Text color="fg.muted">
        {water.kind_label}
        {water.age_days !== null ? ` · read ${ago(water.age_days)}` : ""}
        {stock && ` · ${stock}`}
      </Text>
      {last && (
        <Text fontSize="2xl" fontWeight="semibold">
          <Quantity
            label={`EC of ${water.name}`}
            kind="ec"
            value={last.ec25_uS_cm}
            working={{
              kind: "fetch",
              key: `reading-${last.id}`,
              load: () =>
                answer(
                  client.GET("/api/readings/{reading_id}/working", {
                    params: { path: { reading_id: last.id } },
                  }),
                ),
            }}
          />
          <Text as="span" fontSize="md" fontWeight="normal" color="fg.muted">
            {" "}
            ± {numberIn(last.half_width_uS_cm ?? 0, "µS/cm")}
          </Text>
        </Text>
      )}
      {water.usual && (
        <Text fontWeight="semibold">
          {water.usual.sentence}{" "}
          <Quantity
            label={`What ${water.name} is reckoned with`}
            kind="ec"
            value={water.usual.usual_uS_cm}
            low={water.usual.low_uS_cm}
            high={water.usual.high_uS_cm}
            working={{ kind: "fetch", key: `usual-${water.id}`, load: () => usualOf(water.id) }}
          />{" "}
          is reckoned with until somebody reads it. Confidence {water.usual.confidence}.
        </Text>
      )}
      {water.watch.sentences.map((s) => (
        <Text key={s} mt="1" color={water.watch.concern === "stop" ? "state.stop" : "state.warn"}>
          {s}
        </Text>
      ))}
      {water.newest && water.newest.ec25_uS_cm === null && <Refused reading={water.newest} />}
      {known.length > 2 && (
        <LineChart
          points={known.map((r) => ({ on: r.on, value: inReader(r.ec25_uS_cm ?? 0, "µS/cm") }))}
          today={today}
          unit={unitName("µS/cm")}
          fromZero
        />
      )}
      <Known water={water} today={today} />
      <Treatments water={water} today={today} />
      <Readings water={water} today={today} />
      <Flex gap="2" mt="3" wrap="wrap">
        <Button size="sm" variant="outline" minH="40px" onClick={() => setOpen("change")}>
          Change this source
        </Button>
        <Button size="sm" variant="outline" minH="40px" onClick={() => setOpen("step")}>
          Something done to it
        </Button>
      </Flex>
      {open === "change" && <Change id={water.id} onClose={() => setOpen(null)} />}
      {open === "step" && (
        <TreatmentForm water={water} today={today} onClose={() => setOpen(null)} />
      )}
    </Card>
  )
}

function Change({ id, onClose }: { id: number; onClose: () => void }) {
  const source = useQuery({
    queryKey: ["waters", id],
    queryFn: () =>
      answer(client.GET("/api/waters/{water_id}", { params: { path: { water_id: id } } })),
    staleTime: 0,
  })
  return source.data ? <SourceForm water={source.data} id={id} onClose={onClose} /> : null
}

/** Newest tests, and what nobody has measured. */
function Known({ water, today }: Props) {
  const labels = useQuantities()
  if (water.tests.length === 0 && water.unknown.length === 0) return null
  const label = (id: string) => labels.find((q) => q.id === id)?.label ?? id
  return (
    <Box fontSize="sm" mt="2">
      {water.tests.length > 0 && (
        <Text>
          Known:{" "}
          {water.tests
            .map((t) => {
              const value =
                t.low === t.high ? figure(t.low) : `${figure(t.low)} to ${figure(t.high)}`
              return [label(t.quantity), value, t.unit].filter(Boolean).join(" ")
            })
            .join(", ")}
          {water.report_on && ` (report of ${day(water.report_on, today)})`}.
        </Text>
      )}
      {water.unknown.length > 0 && (
        <Text color="fg.muted">Not known: {water.unknown.join(", ")}.</Text>
      )}
    </Box>
  )
}
