import type { Wrong } from "./queries"

const TOP = 124

/** Leaves as the days they formed in: a bar from the bud to the day the mark was seen, brown-tipped where it was. */
export function LeafLane({
  evidence,
  at,
}: {
  evidence: Wrong["evidence"]
  at: (iso: string) => number
}) {
  const leaves = [...evidence.leaves].sort((a, b) => (a.begun_on < b.begun_on ? -1 : 1)).slice(-6)
  return (
    <g>
      <text x="0" y={TOP + 14} style={{ fontSize: 13, fontWeight: 600 }} fill="currentColor">
        Leaf forming
      </text>
      {leaves.map((l, i) => {
        const foot = TOP + 14 + 11 * (i % 2)
        const left = at(l.begun_on)
        const right = Math.max(left + 8, at(l.marked ? l.seen_on : (l.opened_on ?? l.seen_on)))
        return (
          <g key={`${l.begun_on}${l.number}`} stroke="var(--chakra-colors-leaf-edge)">
            <rect
              x={left}
              y={foot - 5}
              width={right - left}
              height="9"
              rx="4"
              fill="var(--chakra-colors-bg-panel)"
            />
            <path
              d={`M${right} ${foot} q7 -9 0 -20 q-7 11 0 20z`}
              fill={l.marked ? "var(--chakra-colors-leaf-brown)" : "var(--chakra-colors-leaf)"}
            />
            {right - left > 40 && (
              <text
                x={left + 5}
                y={foot + 3}
                stroke="none"
                fill="currentColor"
                style={{ fontSize: 10.5 }}
              >
                leaf {l.number}
              </text>
            )}
          </g>
        )
      })}
      {leaves.length === 0 && (
        <text x="100" y={TOP + 14} style={{ fontSize: 12 }} fill="var(--chakra-colors-fg-muted)">
          no leaf dated
        </text>
      )}
    </g>
  )
}
