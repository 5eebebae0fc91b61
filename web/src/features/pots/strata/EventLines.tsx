import type { LaneProps } from "./LaneTitle"
import { asDate } from "./scales"

/** What happened to the pot or at its place: a line through all lanes, its words at the foot where there is room. */
export function EventLines({ page, x, w, gutter, top, height }: LaneProps) {
  const right = x.range()[1] ?? 0
  const shown = page.events
    .filter((e) => asDate(e.on) >= w.from)
    .map((e) => ({ ...e, cx: Math.max(x(asDate(e.on)), gutter) }))
  return (
    <g>
      {shown.map((e, i) => (
        <g key={`${e.on}${e.what}`}>
          <line
            x1={e.cx}
            x2={e.cx}
            y1="0"
            y2={top}
            stroke="var(--chakra-colors-fg-muted)"
            strokeDasharray="1 4"
            strokeLinecap="round"
            strokeWidth="1.6"
          >
            <title>{e.what}</title>
          </line>
          {e.cx + 10 + e.what.length * 6 < (shown[i + 1]?.cx ?? right) && (
            <text
              style={{ fontSize: 11 }}
              x={e.cx + 4}
              y={top - height}
              fill="var(--chakra-colors-fg-muted)"
            >
              {e.what}
            </text>
          )}
        </g>
      ))}
    </g>
  )
}
