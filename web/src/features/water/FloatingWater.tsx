import type { Placed } from "./waterlineLayout"
import type { Schemas } from "../../api/client"
import { saltColour } from "../../app/ramp"
import { ago, numberIn, ecScale } from "../../ui/format"

/** A water on the surface, at its conductivity. */
export function FloatingWater({
  w,
  a,
  y,
  line,
  from,
  to,
  surface,
  label,
  chosen,
  onChoose,
}: {
  w: Schemas["WaterOut"]
  a: Placed
  y: number
  line: number
  from: number
  to: number
  surface: number
  label: { x: number; textAnchor: "start" | "middle" | "end" }
  chosen: boolean
  onChoose: (id: number) => void
}) {
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      style={{ cursor: "pointer" }}
      onClick={() => onChoose(w.id)}
      onKeyDown={(e) => (e.key === "Enter" || e.key === " ") && onChoose(w.id)}
    >
      <desc>{`${ecScale()}; ${w.amounts}`}</desc>
      <line x1={a.x} x2={a.x} y1={y + 12} y2={surface} stroke="currentColor" strokeWidth="1.4" />
      <path
        d={`M${a.x - 13} ${y} h26 l-4 16 h-18 z`}
        fill={w.ec25_uS_cm === null ? "none" : saltColour(w.ec25_uS_cm)}
        stroke="currentColor"
        strokeWidth={chosen ? 2.6 : 1.4}
        strokeDasharray={w.ec25_uS_cm === null ? "4 3" : undefined}
      />
      <line
        x1={from}
        x2={to}
        y1={surface - (w.ec25_uS_cm === null ? 5 : 2)}
        y2={surface - (w.ec25_uS_cm === null ? 5 : 2)}
        stroke="currentColor"
        strokeWidth={w.ec25_uS_cm === null ? 1.4 : 4}
        strokeDasharray={w.ec25_uS_cm === null ? "2 3" : undefined}
      />
      <text style={{ fontSize: 13, fontWeight: 600 }} {...label} y={line} fill="currentColor">
        {w.name} {w.ec25_uS_cm === null ? "" : numberIn(w.ec25_uS_cm, "µS/cm")}
      </text>
      <text
        style={{ fontSize: 11.5 }}
        {...label}
        y={line + 14}
        fill="var(--chakra-colors-fg-muted)"
      >
        {w.ec25_uS_cm === null ? "not measured" : w.age_days === null ? "" : ago(w.age_days)}
      </text>
    </g>
  )
}
