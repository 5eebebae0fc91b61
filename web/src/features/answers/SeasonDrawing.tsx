import { unitName } from "../../ui/format"
import { Text } from "@chakra-ui/react"
import { scaleLinear } from "d3-scale"
import { useWidth } from "../../ui/useWidth"
import { GrowthCurve } from "./GrowthCurve"
import { NitrogenStairs } from "./NitrogenStairs"
import type { Overlay } from "./queries"
import { spokenSeason } from "./spoken"

const LEFT = 74
const CURVE = 112 // room of heights and leaves
const STAIRS = 70 // room of nitrogen
const AXIS = 26

/** The newer season grows up from the line of weeks, the older hangs: heights and leaves outside, nitrogen inside. */
export function SeasonDrawing({ page }: { page: Overlay }) {
  const [ref, wide] = useWidth<HTMLDivElement>(720)
  const [newer, older] = page.seasons
  if (!newer) return <Text>{page.sentence}</Text>
  const longest = Math.min(400, Math.max(30, newer.days, older?.days ?? 0))
  const x = scaleLinear()
    .domain([0, longest])
    .range([LEFT, wide - 12])
  const both = older ? [newer, older] : [newer]
  const tallest = Math.max(1, ...both.flatMap((s) => (s.heights ?? []).map((h) => h.value)))
  const stairs = page.stairs
  const most = Math.max(1, ...stairs.map((s) => s.at(-1)?.value ?? 0))
  const up = CURVE + STAIRS
  const tall = 2 * up + AXIS
  const age = page.overlay?.result.age_days
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${wide} ${tall}`}
        width="100%"
        role="img"
        fill="none"
        aria-label={both.map((s, i) => spokenSeason(s, page.totals[i])).join(". ")}
      >
        {age !== undefined && (
          <rect
            x={LEFT}
            y="0"
            width={x(Math.min(longest, age)) - LEFT}
            height={tall}
            fill="var(--chakra-colors-bg-inset)"
          />
        )}
        {both.map((s, i) => {
          const way = i === 0 ? -1 : 1
          const line = i === 0 ? up : up + AXIS
          return (
            <g key={`${s.name}${i}`}>
              <text
                x="0"
                y={line + way * (STAIRS + 46)}
                fill="currentColor"
                style={{ fontSize: 14, fontWeight: 700 }}
              >
                {s.name}
              </text>
              <text
                x="0"
                y={line + way * (STAIRS + 46) + 16}
                style={{ fontSize: 11.5 }}
                fill="var(--chakra-colors-fg-muted)"
              >
                {unitName("cm")}, leaves
              </text>
              <text
                x="0"
                y={line + way * 30 + 4}
                style={{ fontSize: 11.5 }}
                fill="var(--chakra-colors-fg-muted)"
              >
                nitrogen
              </text>
              <NitrogenStairs
                season={s}
                stairs={stairs[i] ?? []}
                sum={page.totals[i]}
                x={x}
                line={line}
                way={way}
                room={STAIRS - 12}
                most={most}
                last={longest}
              />
              <GrowthCurve
                season={s}
                x={x}
                base={line + way * STAIRS}
                way={way}
                room={CURVE - 20}
                tallest={tallest}
                last={longest}
              />
            </g>
          )
        })}
        <line x1={LEFT} x2={wide - 12} y1={up} y2={up} stroke="currentColor" strokeWidth="1.4" />
        {older && (
          <line
            x1={LEFT}
            x2={wide - 12}
            y1={up + AXIS}
            y2={up + AXIS}
            stroke="currentColor"
            strokeWidth="1.4"
          />
        )}
        {x.ticks(wide < 520 ? 4 : 9).map((t) => (
          <text
            key={t}
            x={x(t)}
            y={up + 17}
            textAnchor="middle"
            style={{ fontSize: 12 }}
            fill="currentColor"
          >
            {t === 0 ? "day 0" : t}
          </text>
        ))}
      </svg>
      {!older && <Text>{page.sentence}</Text>}
    </div>
  )
}
