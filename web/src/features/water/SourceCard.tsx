import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { scaleLinear } from "d3-scale"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { ago, day, figure } from "../../ui/format"
import { Card } from "../../ui/Page"
import { useNotice } from "../../ui/noticeContext"
import { Quantity } from "../../ui/Quantity"
import { useUndo } from "../../ui/useUndo"

/** The chosen source: newest reading with its working, and how it went. */
export function SourceCard({ water, today }: { water: Schemas["WaterOut"]; today: string }) {
  const undo = useUndo()
  const notice = useNotice()
  const last = water.history.find((r) => r.ec25_uS_cm !== null)
  const refused = water.newest && water.newest.ec25_uS_cm === null ? water.newest : null
  return (
    <Card title={water.name}>
      <Text color="fg.muted">{water.kind}{water.age_days !== null ? ` · read ${ago(water.age_days)}` : ""}</Text>
      {last && (
        <Text fontSize="2xl" fontWeight="semibold">
          <Quantity label={`EC of ${water.name}`} kind="ec" value={last.ec25_uS_cm} working={{ kind: "fetch", key: `reading-${last.id}`, load: () => answer(client.GET("/api/readings/{reading_id}/working", { params: { path: { reading_id: last.id } } })) }} />
          <Text as="span" fontSize="md" fontWeight="normal" color="fg.muted"> ± {figure(last.half_width_uS_cm ?? 0, 2)}</Text>
        </Text>
      )}
      {refused && <Refused reading={refused} />}
      {water.history.length > 2 && <Trend rows={water.history} today={today} />}
      <Box as="ul" listStyleType="none" mt="2" fontSize="sm">
        {water.history.slice(0, 4).map((r) => (
          <Flex as="li" key={r.id} justify="space-between" align="center" py="1" borderTopWidth="1px" gap="3">
            <span>{day(r.on, today)}</span>
            <Text as="span" color="fg.muted">{r.value} {r.unit}{r.scale ? ` (${r.scale === "unknown" ? "scale not known" : `${r.scale} scale`})` : ""}{r.temperature_C !== null ? ` at ${r.temperature_C} °C` : ""}</Text>
            <Quantity label="EC at 25 °C" kind="ec" value={r.ec25_uS_cm} none="not computed" />
            <Button size="xs" variant="outline" minH="32px" aria-label={`Take back the reading of ${day(r.on)}`} onClick={() => { undo("reading", r.id); notice({ text: "Reading taken back.", undo: () => undo("reading", r.id, true) }) }}>Take back</Button>
          </Flex>
        ))}
      </Box>
    </Card>
  )
}

function Refused({ reading }: { reading: Schemas["ReadingOut"] }) {
  return (
    <Box role="note" bg="bg.inset" borderRadius="md" p="3" my="2">
      <Text><b>{reading.value} ppm, scale not known.</b> Nothing is computed from it. It could be:</Text>
      {Object.entries(reading.possible_uS_cm).map(([scale, ec]) => <Text key={scale}>{figure(Math.round(ec), 6)} µS/cm on the {scale} scale</Text>)}
    </Box>
  )
}

function Trend({ rows, today }: { rows: Schemas["ReadingOut"][]; today: string }) {
  const known = rows.filter((r) => r.ec25_uS_cm !== null).toReversed()
  const time = (on: string) => (Date.parse(on) - Date.parse(today)) / 86_400_000
  const top = Math.max(...known.map((r) => r.ec25_uS_cm ?? 0)) * 1.1
  const x = scaleLinear().domain([time(known[0]?.on ?? today), 0]).range([8, 332])
  const y = scaleLinear().domain([0, top]).nice().range([104, 10])
  const line = known.map((r, i) => `${i ? "L" : "M"}${x(time(r.on)).toFixed(1)} ${y(r.ec25_uS_cm ?? 0).toFixed(1)}`).join("")
  return (
    <Box asChild color="fg" w="100%" mt="1">
      <svg viewBox="0 0 340 124" role="img" aria-label={`${known.length} readings, from ${figure(known[0]?.ec25_uS_cm ?? 0)} to ${figure(known.at(-1)?.ec25_uS_cm ?? 0)} µS/cm`}>
        {y.ticks(3).map((t) => <g key={t}><line x1="8" x2="332" y1={y(t)} y2={y(t)} stroke="var(--chakra-colors-border)" /><text style={{ fontSize: 10 }} x="8" y={y(t) - 3} fill="var(--chakra-colors-fg-muted)">{t}</text></g>)}
        <path d={line} fill="none" stroke="currentColor" strokeWidth="1.3" opacity="0.6" />
        {known.map((r) => <circle key={r.id} cx={x(time(r.on))} cy={y(r.ec25_uS_cm ?? 0)} r="2.6" fill="var(--chakra-colors-bg-panel)" stroke="currentColor" strokeWidth="1.2" />)}
        <text style={{ fontSize: 10 }} x="8" y="120" fill="var(--chakra-colors-fg-muted)">{day(known[0]?.on ?? today, today)}</text>
        <text style={{ fontSize: 10 }} x="332" y="120" textAnchor="end" fill="var(--chakra-colors-fg-muted)">today · µS/cm</text>
      </svg>
    </Box>
  )
}
