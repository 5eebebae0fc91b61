import { Box } from "@chakra-ui/react"
import { scaleTime } from "d3-scale"
import type { Schemas } from "../../api/client"
import { saltColour } from "../../app/ramp"
import { day } from "../../ui/format"

const WIDTH = 420
const HEIGHT = 30

/** The coming year of a pot as a band of salt: how deep it gets, and when it crosses its ceiling. */
export function YearAhead({
  row,
  ahead: a,
  today,
}: {
  row: Schemas["PotRow"]
  ahead: Schemas["YearAhead"] | null
  today: string
}) {
  if (!a) return null
  const from = new Date(`${today}T00:00:00Z`)
  const to = new Date(from)
  to.setUTCFullYear(to.getUTCFullYear() + 1)
  const x = scaleTime()
    .domain([from, to])
    .range([2, WIDTH - 2])
  const at = (iso: string) => x(new Date(`${iso}T00:00:00Z`))
  const says = a.crosses_on
    ? `crosses its ceiling about ${day(a.crosses_on, today)}`
    : "stays under its ceiling for a year"
  return (
    <Box asChild w="100%" color="fg">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`${row.code}, the year ahead: ${says}`}
      >
        {a.days.map((on, i) => {
          const next = a.days[i + 1]
          const share = a.shares[i] ?? 0
          const left = at(on)
          return (
            <rect
              key={on}
              x={left}
              y={9}
              width={Math.max(1, (next ? at(next) : WIDTH - 2) - left + 0.5)}
              height={13}
              fill={saltColour(share * row.ceiling_uS_cm)}
            />
          )
        })}
        {a.earliest_on && a.earliest_on !== a.crosses_on && (
          <line
            x1={at(a.earliest_on)}
            x2={a.latest_on ? at(a.latest_on) : WIDTH - 2}
            y1={5}
            y2={5}
            stroke="currentColor"
            strokeWidth="1.6"
            strokeDasharray="3 2"
          />
        )}
        {a.crosses_on && (
          <path
            d={`M${at(a.crosses_on)} 1l4 5v22h-8V6z`}
            fill="var(--chakra-colors-bg-panel)"
            stroke="currentColor"
            strokeWidth="1.6"
          />
        )}
        {x.ticks(6).map((t) => (
          <line key={+t} x1={x(t)} x2={x(t)} y1={22} y2={26} stroke="currentColor" opacity="0.5" />
        ))}
      </svg>
    </Box>
  )
}
