import type { ScaleLinear } from "d3-scale"
import { figure } from "../../ui/format"
import type { Overlay } from "./queries"

/** Nitrogen poured as stairs from the line of days; a tick for each feed, hollow where nobody knows how much. */
export function NitrogenStairs({
  season,
  stairs,
  sum,
  x,
  line,
  way,
  room,
  most,
  last,
}: {
  season: Overlay["seasons"][number]
  stairs: Overlay["stairs"][number]
  sum: Overlay["totals"][number] | undefined
  x: ScaleLinear<number, number>
  line: number
  way: number
  room: number
  most: number
  last: number
}) {
  const feeds = (season.pours ?? []).filter(
    (p) => p.nitrogen_mg_L !== 0 && p.day >= 0 && p.day <= last,
  )
  const steps = stairs.filter((s) => s.day <= last)
  const y = (mg: number) => line + way * (10 + (mg / most) * (room - 10))
  const path = [
    `M${x(0)} ${line}`,
    ...steps.map((s) => `H${x(s.day)}V${y(s.value)}`),
    `H${x(Math.min(last, season.days))}`,
  ].join("")
  return (
    <g stroke="currentColor">
      <path d={path} strokeWidth="1.3" opacity="0.8" />
      {feeds.map((p, i) => (
        <rect
          key={`${p.day}-${i}`}
          x={x(p.day) - 1.5}
          y={way < 0 ? line - 9 : line + 1}
          width="3"
          height="8"
          fill={p.nitrogen_mg_L === null ? "none" : "currentColor"}
          strokeWidth="0.8"
        />
      ))}
      <text
        x={x(Math.min(last, season.days)) - 4}
        y={
          way < 0
            ? Math.min(y(sum?.nitrogen_mg ?? 0) + 15, line - 14)
            : Math.max(y(sum?.nitrogen_mg ?? 0) - 6, line + 22)
        }
        textAnchor="end"
        stroke="none"
        fill="currentColor"
        style={{ fontSize: 12, fontWeight: 600 }}
      >
        {sum ? `${figure(sum.nitrogen_mg)} mg in ${sum.feeds} feeds` : ""}
      </text>
    </g>
  )
}
