import { asDate } from "./scales"
import { type LaneProps, LaneTitle } from "./LaneTitle"

const PHASE_FILL: Record<string, string> = {
  active: "active",
  flowering: "flowering",
  rest: "rest",
  dormant: "rest",
  slowing: "other",
  establishing: "other",
  stressed: "other",
}

export function PhaseLane({ page, x, w, gutter, top, height }: LaneProps) {
  return (
    <g>
      {gutter > 40 && <LaneTitle gutter={gutter} top={top + 3} title="Phase" />}
      {page.phases.map((p, i) => {
        const next = page.phases[i + 1]
        const from = Math.max(x(asDate(p.since)), gutter)
        const to = Math.min(next ? x(asDate(next.since)) : x(asDate(page.today)), x(w.to))
        if (to - from < 1) return null
        return (
          <g key={`${p.since}${p.phase}`}>
            <rect
              x={from}
              y={top + 9}
              width={Math.max(0, to - from - 1.5)}
              height={height - 18}
              rx="3"
              fill={`var(--chakra-colors-phase-${PHASE_FILL[p.phase] ?? "other"})`}
            />
            {to - from > 60 && (
              <text
                style={{ fontSize: 12 }}
                x={from + 8}
                y={top + height / 2 + 4}
                fill="currentColor"
              >
                {p.phase}
              </text>
            )}
          </g>
        )
      })}
    </g>
  )
}

export function MarksLane({ page, x, w, gutter, top }: LaneProps) {
  const right = x.range()[1] ?? 0
  const seen = page.looks.filter((l) => l.marks.length > 0 && asDate(l.on) >= w.from)
  const marked = withRoom(
    seen.map((l) => ({ id: l.id, cx: x(asDate(l.on)), words: l.marks.join(", ") })),
    right,
  )
  return (
    <g>
      <LaneTitle gutter={gutter} top={top + 2} title="Marks" />
      {marked.map(({ id, cx, words, fits }) => (
        <g key={id}>
          <path d={`M${cx - 5} ${top + 32} l5 -9 l5 9 z`} fill="var(--chakra-colors-state-caution)">
            <title>{words}</title>
          </path>
          {fits && (
            <text style={{ fontSize: 11.5 }} x={cx + 8} y={top + 32} fill="currentColor">
              {words}
            </text>
          )}
        </g>
      ))}
    </g>
  )
}

type Mark = { id: number; cx: number; words: string }

/** Words are written where the next mark leaves room for them. */
function withRoom(marks: Mark[], right: number): (Mark & { fits: boolean })[] {
  return marks.map((m, i) => ({
    ...m,
    fits: m.cx + 16 + m.words.length * 6.2 < (marks[i + 1]?.cx ?? right),
  }))
}
