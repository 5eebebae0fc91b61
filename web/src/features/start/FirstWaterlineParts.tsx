import { saltColour } from "../../app/ramp"
import type { Placed } from "../water/waterlineLayout"
import type { Drawn } from "./answers"

export const VESSEL = 34
export const ROW = 78
export const MUTED = "var(--chakra-colors-fg-muted)"
export type Float = {
  key: string
  w: Drawn["waters"][number]
  from: number
  to: number
  label: string
}

/** A water as wide as it is open: hatched where nobody read it. */
export function Vessel({ f, a, surface }: { f: Float; a: Placed; surface: number }) {
  const top = surface - 12 - VESSEL - a.row * ROW
  const [from, to] = [f.from, Math.max(f.to, f.from + 12)]
  return (
    <g>
      <path
        d={`M${from - 6} ${top} H${to + 6} L${to} ${top + VESSEL} H${from} z`}
        fill={f.w.measured ? saltColour(f.w.low_uS_cm) : `url(#hatch${a.key})`}
        stroke="currentColor"
        strokeWidth="1.4"
        strokeDasharray={f.w.measured ? undefined : "5 3"}
      />
      <path
        d={`M${from} ${top + VESSEL} V${surface} M${to} ${top + VESSEL} V${surface}`}
        stroke="currentColor"
        strokeDasharray="2 3"
      />
      <line
        x1={from}
        x2={to}
        y1={surface - 2}
        y2={surface - 2}
        stroke="currentColor"
        strokeWidth="4"
      />
      <text
        x={a.left + a.width / 2}
        y={top - 21}
        textAnchor="middle"
        fill="currentColor"
        style={{ fontSize: 13, fontWeight: 600 }}
      >
        {f.w.name}
      </text>
      <text
        x={a.left + a.width / 2}
        y={top - 6}
        textAnchor="middle"
        fill={MUTED}
        style={{ fontSize: 11.5 }}
      >
        {f.label}
      </text>
    </g>
  )
}

/** A kind at the most it may drink. */
export function Hanging({ b, surface, text }: { b: Placed; surface: number; text: string }) {
  const y = surface + 54 + b.row * 24
  return (
    <g>
      <line
        x1={b.x}
        x2={b.x}
        y1={surface + 32}
        y2={y - 5}
        stroke="var(--chakra-colors-border-strong)"
      />
      <path
        d={`M${b.x} ${y - 8} q6 8 0 16 q-6 -8 0 -16`}
        fill="var(--chakra-colors-leaf)"
        stroke="var(--chakra-colors-leaf-edge)"
      />
      <text
        x={b.right ? b.x - 10 : b.x + 10}
        y={y + 4}
        textAnchor={b.right ? "end" : "start"}
        fill="currentColor"
        style={{ fontSize: 12.5 }}
      >
        {text} <tspan fill={MUTED}>{b.key}</tspan>
      </text>
    </g>
  )
}
