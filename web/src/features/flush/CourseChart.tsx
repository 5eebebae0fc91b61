import { Box } from "@chakra-ui/react"
import { scaleLinear, scaleTime } from "d3-scale"
import { day, numberIn } from "../../ui/format"

export type Course = {
  name: string
  points: { on: string; value: number }[]
  ticks?: readonly string[]
  bold?: boolean
}

const WIDTH = 440
const GUTTER = 40
const LANE = 26

/** Courses of a reading over days against one ceiling; ticks are flushes. */
export function CourseChart({
  courses,
  ceiling,
  label,
  today,
}: {
  courses: Course[]
  ceiling: number
  label: string
  today: string
}) {
  const all = courses.flatMap((c) => c.points)
  if (all.length < 2) return null
  const time = (iso: string) => new Date(`${iso}T00:00:00Z`)
  const days = all.map((p) => +time(p.on))
  const x = scaleTime()
    .domain([Math.min(...days), Math.max(...days)])
    .range([GUTTER, WIDTH - 6])
  const ticked = courses.some((c) => c.ticks)
  const top = Math.max(ceiling * 1.15, ...all.map((p) => p.value))
  const y = scaleLinear().domain([0, top]).nice().range([150, 8])
  return (
    <Box asChild w="100%" maxW="640px" color="fg" display="block">
      <svg
        viewBox={`0 0 ${WIDTH} ${160 + courses.length * (ticked ? LANE : 14)}`}
        role="img"
        aria-label={label}
      >
        {y.ticks(4).map((t) => (
          <g key={t}>
            <line
              x1={GUTTER}
              x2={WIDTH - 6}
              y1={y(t)}
              y2={y(t)}
              stroke="var(--chakra-colors-border)"
            />
            <text
              x={GUTTER - 5}
              y={y(t) + 4}
              textAnchor="end"
              style={{ fontSize: 11 }}
              fill="currentColor"
            >
              {numberIn(t, "µS/cm")}
            </text>
          </g>
        ))}
        <line
          x1={GUTTER}
          x2={WIDTH - 6}
          y1={y(ceiling)}
          y2={y(ceiling)}
          stroke="currentColor"
          strokeWidth="2"
        />
        <text
          x={WIDTH - 8}
          y={y(ceiling) - 4}
          textAnchor="end"
          style={{ fontSize: 11 }}
          fill="currentColor"
        >
          ceiling {numberIn(ceiling, "µS/cm")}
        </text>
        {courses.map((c, i) => (
          <g key={c.name}>
            <path
              d={c.points
                .map(
                  (p, k) => `${k ? "L" : "M"}${x(time(p.on)).toFixed(1)} ${y(p.value).toFixed(1)}`,
                )
                .join("")}
              fill="none"
              stroke="currentColor"
              strokeWidth={c.bold ? 2.4 : 1.3}
              strokeDasharray={["", "6 3", "2 3", "9 3 2 3", "1 4", "12 4"][i]}
            />
            <text
              x={GUTTER}
              y={174 + i * (ticked ? LANE : 14)}
              style={{ fontSize: 11 }}
              fill="currentColor"
            >
              {c.name}
            </text>
            <line
              x1="4"
              x2={GUTTER - 6}
              y1={170 + i * (ticked ? LANE : 14)}
              y2={170 + i * (ticked ? LANE : 14)}
              stroke="currentColor"
              strokeWidth={c.bold ? 2.4 : 1.3}
              strokeDasharray={["", "6 3", "2 3", "9 3 2 3", "1 4", "12 4"][i]}
            />
            {c.ticks?.map((on) => (
              <path
                key={on}
                d={`M${x(time(on)).toFixed(1)} ${178 + i * (ticked ? LANE : 14)}l-3 6h6z`}
                fill="currentColor"
              >
                <title>{`flushed ${day(on, today)}`}</title>
              </path>
            ))}
          </g>
        ))}
      </svg>
    </Box>
  )
}
