import type { ScaleLinear } from "d3-scale"
import { amount } from "../../ui/format"
import { LeafShape } from "../leaf/LeafShape"
import type { Overlay } from "./queries"

/** A season's growth as the cane it made: a node for each look, leaves where they opened. */
export function GrowthCurve({
  season,
  x,
  base,
  way,
  room,
  tallest,
  last,
}: {
  season: Overlay["seasons"][number]
  x: ScaleLinear<number, number>
  base: number
  way: number
  room: number
  tallest: number
  last: number
}) {
  const heights = (season.heights ?? []).filter((h) => h.day <= last)
  const y = (cm: number) => base + way * (8 + (cm / tallest) * (room - 8))
  const leaves = (season.leaves ?? []).filter((d) => d <= last)
  const end = heights.at(-1)
  return (
    <g stroke="var(--chakra-colors-leaf-edge)">
      <line x1={x(0)} x2={x(Math.min(last, season.days))} y1={base} y2={base} strokeWidth="1.2" />
      {heights.length > 1 && (
        <path
          d={`M${heights.map((h) => `${x(h.day)} ${y(h.value)}`).join("L")}`}
          strokeWidth="6"
          strokeLinecap="round"
          strokeLinejoin="round"
          stroke={way < 0 ? "var(--chakra-colors-leaf)" : "var(--chakra-colors-leaf-edge)"}
          opacity={way < 0 ? 1 : 0.45}
        />
      )}
      {heights.map((h) => (
        <circle
          key={h.day}
          cx={x(h.day)}
          cy={y(h.value)}
          r="2"
          fill="var(--chakra-colors-leaf-edge)"
        />
      ))}
      {way < 0 &&
        leaves.map((d, i) => (
          <LeafShape key={`${d}-${i}`} x={x(d)} base={base} tall={15} formed={null} />
        ))}
      {way > 0 &&
        leaves.map((d, i) => (
          <LeafShape key={`${d}-${i}`} x={x(d)} base={base} tall={15} formed="formed before" />
        ))}
      {end && (
        <text
          x={Math.max(x(0) + 40, x(end.day) - 6)}
          y={y(end.value) + (way < 0 ? -7 : 18)}
          textAnchor="end"
          stroke="none"
          fill="currentColor"
          style={{ fontSize: 12, fontWeight: 600 }}
        >
          {amount(end.value, "cm")}
        </text>
      )}
    </g>
  )
}
