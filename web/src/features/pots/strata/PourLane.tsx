import { saltColour } from "../../../app/ramp"
import { amount } from "../../../ui/format"
import { asDate } from "./scales"
import { LaneProps, LaneTitle } from "./LaneTitle"
import { PrillWedge } from "./PrillWedge"

export function PourLane(lane: LaneProps) {
  const { page, x, w, gutter, top, height } = lane
  const rows = page.pours.filter((p) => asDate(p.on) >= w.from)
  const most = Math.max(...rows.map((p) => p.volume_L ?? 0), 0.05)
  const wide = Math.min(
    8,
    Math.max(2.5, ((x.range()[1] ?? 0) - gutter) / Math.max(rows.length, 1) / 1.7),
  )
  const base = top + height - 4
  const tall = (v: number) => Math.sqrt(v / most) * (height - 30)
  return (
    <g>
      <LaneTitle
        gutter={gutter}
        top={top}
        title="Poured"
        unit={gutter > 40 ? "bar mL, shade EC" : undefined}
      />
      {page.prills && <PrillWedge {...lane} prills={page.prills} />}
      {rows.map((p) => {
        const h = tall(p.volume_L ?? most / 3)
        return (
          <rect
            key={p.id}
            x={x(asDate(p.on)) - wide / 2}
            y={base - h}
            width={wide}
            height={h}
            fill={p.ec_uS_cm === null ? "none" : saltColour(p.ec_uS_cm)}
            stroke="currentColor"
            strokeWidth="0.7"
            strokeDasharray={p.volume_L === null ? "2 2" : undefined}
          />
        )
      })}
      {rows
        .filter((p) => p.flush_L !== null)
        .map((p) => (
          <text
            style={{ fontSize: 11.5 }}
            key={p.id}
            x={x(asDate(p.on)) + wide}
            y={top + 14}
            fill="currentColor"
          >
            {p.broken_off ? "broken off at" : "flushed"} {amount(p.flush_L ?? 0, "L")}
          </text>
        ))}
    </g>
  )
}
