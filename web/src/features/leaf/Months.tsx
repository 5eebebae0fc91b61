import { monthTick } from "../../ui/format"
import type { ScaleTime } from "d3-scale"
import { asDay } from "./axis"

/** Months over the lines, and today. */
export function Months({
  x,
  width,
  today,
}: {
  x: ScaleTime<number, number>
  width: number
  today: string
}) {
  return (
    <svg width="100%" viewBox={`0 0 ${width} 22`} aria-hidden="true">
      {x.ticks(width < 480 ? 4 : 8).map((t) => (
        <text
          key={+t}
          x={x(t)}
          y="15"
          textAnchor="middle"
          style={{ fontSize: 12 }}
          fill="var(--chakra-colors-fg-muted)"
        >
          {monthTick(t)}
        </text>
      ))}
      <path d={`M${x(asDay(today))} 22l-4 -6h8z`} fill="currentColor" />
    </svg>
  )
}
