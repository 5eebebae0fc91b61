import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { day } from "../../../ui/format"
import { useWidth } from "../../../ui/useWidth"
import { reservoirQuery } from "../../flush/queries"
import { says } from "./says"
import { asDate, GUTTER, nearest, stops, timeScale, windowOf } from "./scales"
import { EventLines } from "./EventLines"
import { LeafLane } from "./LeafLane"
import { LevelLane } from "./LevelLane"
import { MarksLane, PhaseLane } from "./lanes"
import { PourLane } from "./PourLane"
import { SaltLane } from "./SaltLane"
import { TimeAxis } from "./TimeAxis"

/** A tray nobody read stands at its brim by assumption: there is nothing to draw. */
const hasLevels = ({ kind, room_L, now }: Schemas["ReservoirPage"]) =>
  now.result.points.some((p) => kind === "reservoir" || p.level_L < room_L)

const LANES = { phase: 40, pours: 88, level: 72, salt: 190, leaf: 112, marks: 46, axis: 26 }

/** Stacked lanes on one time axis, one cursor through all of them. */
export function Strata({ page }: { page: Schemas["PotPage"] }) {
  const [months, setMonths] = useState(6)
  const [cursor, setCursor] = useState<string | null>(null)
  const [ref, width] = useWidth<HTMLDivElement>(1000)
  const below = useQuery({ ...reservoirQuery(page.row.id), enabled: !page.row.drains }).data
  const water = below && hasLevels(below) ? below : null
  const gutter = width < 560 ? 8 : GUTTER
  const w = windowOf(page, months)
  const x = timeScale(w, width, gutter)
  const days = stops(page, w)
  const at = cursor ?? page.today
  const tops = {
    phase: 0,
    pours: LANES.phase,
    level: LANES.phase + LANES.pours,
    salt: LANES.phase + LANES.pours + (water ? LANES.level : 0),
    leaf: 0,
    marks: 0,
    axis: 0,
  }
  tops.leaf = tops.salt + LANES.salt
  tops.marks = tops.leaf + LANES.leaf
  tops.axis = tops.marks + LANES.marks
  const height = tops.axis + LANES.axis
  const move = (by: number) => {
    const i = days.indexOf(nearest(days, asDate(at)) ?? page.today)
    setCursor(days[Math.min(Math.max(i + by, 0), days.length - 1)] ?? null)
  }
  const onKey = (e: React.KeyboardEvent) => {
    if (e.key === "ArrowLeft") move(-1)
    else if (e.key === "ArrowRight") move(1)
    else if (e.key === "Home") setCursor(days[0] ?? null)
    else if (e.key === "End") setCursor(null)
    else return
    e.preventDefault()
  }
  const lane = { page, x, gutter, width, w }
  const line = says(page, at, water)
  return (
    <Box
      as="section"
      aria-label="Strata"
      bg="bg.panel"
      borderWidth="1px"
      borderRadius="lg"
      overflow="hidden"
    >
      <Flex px="3" py="2" justify="space-between" align="center" gap="3" wrap="wrap">
        <Text aria-live="polite" fontSize="sm">
          <b>{day(at, page.today)}</b> · {line}
        </Text>
        <Flex gap="1.5" role="group" aria-label="How far back">
          {[3, 6, 14].map((m) => (
            <Button
              key={m}
              size="xs"
              variant={m === months ? "solid" : "outline"}
              aria-pressed={m === months}
              onClick={() => setMonths(m)}
            >
              {m} months
            </Button>
          ))}
        </Flex>
      </Flex>
      <Box ref={ref}>
        <Box asChild color="fg" display="block" outlineOffset="-3px">
          <svg
            width={width}
            height={height}
            tabIndex={0}
            role="slider"
            aria-label="Time cursor of the strata; arrow keys move it"
            aria-valuemin={0}
            aria-valuemax={days.length - 1}
            aria-valuenow={Math.max(0, days.indexOf(nearest(days, asDate(at)) ?? page.today))}
            aria-valuetext={`${day(at, page.today)}: ${line}`}
            onKeyDown={onKey}
            onPointerMove={(e) => {
              const left = e.clientX - e.currentTarget.getBoundingClientRect().left
              setCursor(nearest(days, x.invert(left)) ?? null)
            }}
            onPointerLeave={() => setCursor(null)}
          >
            {[...new Set([tops.pours, tops.level, tops.salt, tops.leaf, tops.marks])].map((y) => (
              <line key={y} x1="0" x2={width} y1={y} y2={y} stroke="var(--chakra-colors-border)" />
            ))}
            <PhaseLane {...lane} top={tops.phase} height={LANES.phase} />
            <PourLane {...lane} top={tops.pours} height={LANES.pours} />
            {water && (
              <LevelLane
                {...lane}
                water={water}
                until={page.today}
                top={tops.level}
                height={LANES.level}
              />
            )}
            <SaltLane {...lane} top={tops.salt} height={LANES.salt} />
            <LeafLane {...lane} top={tops.leaf} height={LANES.leaf} />
            <MarksLane {...lane} top={tops.marks} height={LANES.marks} />
            <EventLines {...lane} top={tops.axis} height={3} />
            <TimeAxis x={x} wide={width >= 560} months={months} y={tops.axis + 17} />
            <line
              x1={x(asDate(page.today))}
              x2={x(asDate(page.today))}
              y1="0"
              y2={tops.axis}
              stroke="var(--chakra-colors-border-strong)"
              strokeDasharray="2 3"
            />
            <line
              x1={x(asDate(at))}
              x2={x(asDate(at))}
              y1="0"
              y2={tops.axis}
              stroke="currentColor"
              strokeWidth="1.3"
            />
          </svg>
        </Box>
      </Box>
    </Box>
  )
}
