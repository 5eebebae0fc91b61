import { amount } from "../../ui/format"
import { useRef } from "react"
import type { Asked } from "./queries"

const HEIGHT = 262
const FOOT = 250
const TOP = 14
const MIDDLE = 96
const RULE = 150
const LEAST_mm = 1
const STEPS_mm = [10, 20, 50, 100, 200]

/** The newest leaf beside a rule, its tip to be dragged; behind it, dashed, how long the leaf before was at its age. */
export function LeafRule({
  asked,
  ghost_mm,
  mm,
  marked,
  onLength,
  onZone,
}: {
  asked: Asked
  ghost_mm: number | null
  mm: number | null
  marked: string[]
  onLength: (mm: number) => void
  onZone: (place: string) => void
}) {
  const svg = useRef<SVGSVGElement>(null)
  const guess = asked.leaves[0]?.mm ?? asked.usual_mm ?? 100
  const most = Math.ceil((1.3 * Math.max(mm ?? 0, guess, ghost_mm ?? 0)) / 50) * 50
  const step = STEPS_mm.find((s) => most / s <= 6) ?? 500
  const y = (length: number) => FOOT - (length / most) * (FOOT - TOP)
  const shown = mm ?? guess
  const dragged = (e: React.PointerEvent) => {
    const box = svg.current?.getBoundingClientRect()
    if (!box) return
    const at = ((e.clientY - box.top) / box.height) * HEIGHT
    onLength(Math.max(LEAST_mm, Math.min(most, Math.round(((FOOT - at) / (FOOT - TOP)) * most))))
  }
  const onKey = (e: React.KeyboardEvent) => {
    const by = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 }[e.key]
    if (by === undefined) return
    e.preventDefault()
    onLength(Math.max(LEAST_mm, Math.round(shown) + by))
  }
  const half = Math.max(12, Math.min(44, (FOOT - y(shown)) / 5))
  const blade = (tall: number, wide: number) =>
    `M${MIDDLE - 10} ${FOOT} C${MIDDLE - wide * 1.5} ${FOOT - tall * 0.4} ${MIDDLE - wide} ${FOOT - tall * 0.8} ${MIDDLE} ${FOOT - tall} C${MIDDLE + wide} ${FOOT - tall * 0.8} ${MIDDLE + wide * 1.5} ${FOOT - tall * 0.4} ${MIDDLE + 10} ${FOOT} Z`
  const zones = [
    { place: "tip", at: y(shown) + 8, x: MIDDLE },
    { place: "rim", at: (y(shown) + FOOT) / 2 - 24, x: MIDDLE - half * 0.9 },
    { place: "blade", at: (y(shown) + FOOT) / 2 + 12, x: MIDDLE },
    { place: "base", at: FOOT - 18, x: MIDDLE },
  ]
  return (
    <svg
      ref={svg}
      viewBox={`0 0 214 ${HEIGHT}`}
      width="100%"
      role="group"
      aria-label="The newest leaf"
      style={{ touchAction: "none", maxWidth: 300 }}
      fill="none"
    >
      {ghost_mm !== null && (
        <path
          d={blade(FOOT - y(ghost_mm), 46)}
          stroke="var(--chakra-colors-leaf-edge)"
          strokeDasharray="4 3"
          opacity="0.7"
        />
      )}
      <path
        d={blade(FOOT - y(shown), half)}
        fill={mm === null ? "var(--chakra-colors-bg-panel)" : "var(--chakra-colors-leaf)"}
        stroke="var(--chakra-colors-leaf-edge)"
        strokeDasharray={mm === null ? "4 3" : undefined}
        strokeWidth="1.5"
      />
      {zones.map((z) => (
        <circle
          key={z.place}
          cx={z.x}
          cy={z.at}
          r={marked.includes(z.place) ? 7 : 4}
          fill={
            marked.includes(z.place)
              ? "var(--chakra-colors-state-caution)"
              : "var(--chakra-colors-bg-panel)"
          }
          stroke="currentColor"
          onClick={() => onZone(z.place)}
          style={{ cursor: "pointer" }}
        />
      ))}
      <line x1={RULE} x2={RULE} y1={TOP} y2={FOOT} stroke="currentColor" opacity="0.6" />
      {Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => i * step).map((at) => (
        <g key={at}>
          <line x1={RULE} x2={RULE + 8} y1={y(at)} y2={y(at)} stroke="currentColor" />
          <text x={RULE + 12} y={y(at) + 4} fill="currentColor" style={{ fontSize: 12 }}>
            {at}
          </text>
        </g>
      ))}
      <line
        x1={MIDDLE}
        x2={RULE}
        y1={y(shown)}
        y2={y(shown)}
        stroke="currentColor"
        strokeDasharray="2 2"
      />
      <g
        role="slider"
        tabIndex={0}
        aria-label="Length of the newest leaf"
        aria-valuemin={LEAST_mm}
        aria-valuemax={most}
        aria-valuenow={Math.round(shown)}
        aria-valuetext={mm === null ? "not measured" : amount(mm, "mm")}
        onKeyDown={onKey}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture?.(e.pointerId)
          dragged(e)
        }}
        onPointerMove={(e) => e.buttons > 0 && dragged(e)}
        style={{ cursor: "ns-resize" }}
      >
        <circle cx={RULE} cy={y(shown)} r="22" fill="var(--chakra-colors-ink-solid)" />
        <path
          d={`M${RULE - 6} ${y(shown) - 4} l6 -6 l6 6 M${RULE - 6} ${y(shown) + 4} l6 6 l6 -6`}
          stroke="var(--chakra-colors-ink-contrast)"
          strokeWidth="2"
        />
      </g>
    </svg>
  )
}
