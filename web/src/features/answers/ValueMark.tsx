import { figure, numberIn } from "../../ui/format"
import type { Value } from "./queries"

/** A value on the line: a leaf as long as it is, or a dot at its height; whole when it formed after the change. */
export function ValueMark({
  v,
  x,
  base,
  tall,
  up,
  leafy,
  faint = false,
}: {
  v: Value
  x: number
  base: number
  tall: number
  up: boolean
  leafy: boolean
  faint?: boolean
}) {
  const way = up ? -1 : 1
  const top = base + way * tall
  const half = Math.max(3, Math.min(8, tall / 7))
  const whole = v.formed === "formed after"
  const fill = whole ? "var(--chakra-colors-leaf)" : "var(--chakra-colors-bg-panel)"
  const right = `M${x} ${base} q${half * 2} ${way * tall * 0.5} 0 ${way * tall}`
  return (
    <g
      stroke="var(--chakra-colors-leaf-edge)"
      opacity={faint ? 0.6 : 1}
      strokeDasharray={faint ? "3 2" : undefined}
    >
      {leafy ? (
        <>
          <path d={`${right} q${-half * 2} ${-way * tall * 0.5} 0 ${-way * tall} Z`} fill={fill} />
          {v.formed === "begun before" && (
            <path d={`${right} Z`} fill="var(--chakra-colors-leaf)" />
          )}
        </>
      ) : (
        <>
          <line x1={x} x2={x} y1={base} y2={top} />
          <circle cx={x} cy={top} r="4.5" fill={fill} strokeWidth="1.6" />
        </>
      )}
      <text
        x={x}
        y={up ? top - 6 : top + 15}
        textAnchor="middle"
        stroke="none"
        fill="currentColor"
        style={{ fontSize: 12, fontWeight: whole ? 700 : 400 }}
      >
        {leafy ? numberIn(v.value, "mm") : figure(v.value)}
      </text>
    </g>
  )
}
