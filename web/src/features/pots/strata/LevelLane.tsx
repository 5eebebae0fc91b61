import type { Schemas } from "../../../api/client"
import { saltColour } from "../../../app/ramp"
import { amount } from "../../../ui/format"
import { LaneTitle, type LaneProps } from "./LaneTitle"
import { asDate } from "./scales"

type Props = Omit<LaneProps, "page"> & { water: Schemas["ReservoirPage"]; until: string }

/** Level of a tray or reservoir under its brim, a reservoir in the shade of its salt; dots where it was read. */
export function LevelLane({ water, until, x, w, gutter, top, height }: Props) {
  const points = water.now.result.points
  const ofTray = water.kind === "tray" // pot and tray are one store: its salt stands in the root zone
  const base = top + height - 4
  const deep = (level: number) => (height - 24) * Math.min(1, level / water.room_L)
  const right = (i: number) => x(asDate(points[i + 1]?.on ?? until))
  const from = x(w.from)
  return (
    <g>
      <LaneTitle
        gutter={gutter}
        top={top}
        title={water.kind === "tray" ? "Tray" : "Reservoir"}
        unit={gutter > 40 ? `of ${amount(water.room_L, "L")}` : undefined}
      />
      <line
        x1={from}
        x2={x(asDate(until))}
        y1={base - deep(water.room_L)}
        y2={base - deep(water.room_L)}
        stroke="currentColor"
        strokeDasharray="4 3"
        opacity="0.6"
      />
      {points.map((p, i) => {
        const left = Math.max(from, x(asDate(p.on)))
        if (right(i) <= left) return null
        return (
          <rect
            key={`${p.on}-${i}`}
            x={left}
            y={base - deep(p.level_L)}
            width={right(i) - left}
            height={deep(p.level_L)}
            fill={ofTray ? "var(--chakra-colors-border)" : saltColour(p.ec_uS_cm)}
          />
        )
      })}
      {points
        .filter((p) => p.measured && asDate(p.on) >= w.from)
        .map((p) => (
          <circle
            key={p.on}
            cx={x(asDate(p.on))}
            cy={base - deep(p.level_L)}
            r="3.5"
            fill="var(--chakra-colors-bg-panel)"
            stroke="currentColor"
          />
        ))}
    </g>
  )
}
