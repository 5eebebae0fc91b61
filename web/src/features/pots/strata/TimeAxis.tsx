import { monthTick, tick } from "../../../ui/format"
import type { ScaleTime } from "d3-scale"

/** Days under the lanes: months only where the window is long. */
export function TimeAxis({
  x,
  wide,
  months,
  y,
}: {
  x: ScaleTime<number, number>
  wide: boolean
  months: number
  y: number
}) {
  return x.ticks(wide ? 8 : 4).map((t) => (
    <text
      style={{ fontSize: 11.5 }}
      key={t.getTime()}
      x={x(t)}
      y={y}
      textAnchor="middle"
      fill="var(--chakra-colors-fg-muted)"
    >
      {months > 6 ? monthTick(t, true) : tick(t)}
    </text>
  ))
}
