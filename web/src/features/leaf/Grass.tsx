import type { ScaleTime } from "d3-scale"
import { asDay } from "./axis"
import type { PlantLine } from "./queries"

const HEIGHT = 34
const BASE = 30

/** A folded group as a strip of grass: one blade a leaf, leaning the way its length leans from usual. */
export function Grass({
  plants,
  x,
  width,
  today,
  label,
}: {
  plants: PlantLine[]
  x: ScaleTime<number, number>
  width: number
  today: string
  label: string
}) {
  const from = x.range()[0] ?? 0
  const end = x(asDay(today))
  const blades = plants.flatMap((p) =>
    p.line.leaves
      .filter((l) => l.share !== null && !l.growing && x(asDay(l.opened_on)) >= from)
      .map((l) => ({ at: x(asDay(l.opened_on)), share: Math.min(1.5, l.share ?? 1) })),
  )
  const d = blades.map(
    (b) =>
      `M${b.at.toFixed(1)} ${BASE}l${((b.share - 1) * 8).toFixed(1)} ${(-18 * b.share).toFixed(1)}`,
  )
  return (
    <svg width="100%" viewBox={`0 0 ${width} ${HEIGHT}`} role="img" aria-label={label}>
      <line
        x1={from}
        x2={end}
        y1={BASE}
        y2={BASE}
        stroke="var(--chakra-colors-leaf-edge)"
        strokeWidth="1.5"
      />
      <path d={d.join("")} stroke="var(--chakra-colors-leaf-edge)" strokeWidth="1.3" fill="none" />
    </svg>
  )
}
