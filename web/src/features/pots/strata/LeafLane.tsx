import { numberIn, unitName } from "../../../ui/format"
import { type LaneProps, LaneTitle } from "./LaneTitle"
import { asDate } from "./scales"

export function LeafLane({ page, x, w, gutter, top, height }: LaneProps) {
  const leaves = page.looks.filter(
    (l) => l.new_leaf && l.newest_leaf_mm !== null && asDate(l.on) >= w.from,
  )
  const most = Math.max(...leaves.map((l) => l.newest_leaf_mm ?? 0), 10)
  const base = top + height - 6
  const flush = page.pours.findLast((p) => p.job === "flush")
  const after = flush && asDate(flush.on) >= w.from ? x(asDate(flush.on)) : null
  return (
    <g>
      {after !== null && (
        <rect
          x={after}
          y={top + 1}
          width={Math.max(0, x(asDate(page.today)) - after)}
          height={height - 2}
          fill="var(--chakra-colors-bg-inset)"
        />
      )}
      {after !== null && x(asDate(page.today)) - after > 120 && (
        <text
          style={{ fontSize: 11 }}
          x={after + 6}
          y={top + 14}
          fill="var(--chakra-colors-fg-muted)"
        >
          opened after the flush
        </text>
      )}
      <LaneTitle gutter={gutter} top={top} title="New leaf" unit={`length, ${unitName("mm")}`} />
      {leaves.map((l) => {
        const h = ((l.newest_leaf_mm ?? 0) / most) * (height - 42)
        const cx = x(asDate(l.on))
        const half = Math.min(9, h / 5)
        return (
          <g key={l.id}>
            <path
              d={`M${cx} ${base} q${-half * 2} ${-h / 2} 0 ${-h} q${half * 2} ${h / 2} 0 ${h}`}
              fill="var(--chakra-colors-leaf)"
              stroke="var(--chakra-colors-leaf-edge)"
            />
            <text
              style={{ fontSize: 11.5 }}
              x={cx + half + 2}
              y={base - h + 10}
              fill="currentColor"
            >
              {numberIn(l.newest_leaf_mm ?? 0, "mm")}
            </text>
          </g>
        )
      })}
    </g>
  )
}
