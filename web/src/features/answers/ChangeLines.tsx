import type { Chosen } from "./queries"

/** The change asked about, and what else changed: through both halves where both had it, on one half where one did. */
export function ChangeLines({
  chosen,
  at,
  top,
  foot,
  line,
  right,
}: {
  chosen: Chosen
  at: (iso: string) => number
  top: number
  foot: number
  line: number
  right: number
}) {
  const r = chosen.answer.result
  const others = [
    ...r.shared.map((o) => ({ ...o, from: top + 18, to: foot })),
    ...r.one_sided.map((o) => ({
      ...o,
      from: o.whose === "twin" ? line : top + 18,
      to: o.whose === "twin" ? foot : line,
    })),
  ].filter((o) => at(o.on) > 92 && at(o.on) < right)
  const x = at(chosen.change.on)
  return (
    <g stroke="currentColor" fill="currentColor">
      <line x1={x} x2={x} y1={top + 14} y2={line} strokeWidth="2.4" strokeDasharray="2 3" />
      <text
        x={x - 5}
        y={top + 24}
        textAnchor="end"
        stroke="none"
        style={{ fontSize: 12, fontWeight: 600 }}
      >
        {chosen.change.words.slice(0, 22)}
      </text>
      {others.map((o, i) => (
        <g key={`${o.on}${o.words}`} opacity="0.75">
          <line x1={at(o.on)} x2={at(o.on)} y1={o.from} y2={o.to} strokeDasharray="1 3" />
          {o.whose !== "one" && (
            <text
              x={at(o.on) + 4}
              y={foot - 4 - 13 * (i % 3)}
              stroke="none"
              style={{ fontSize: 11 }}
            >
              {o.words.slice(0, 24)}
            </text>
          )}
        </g>
      ))}
    </g>
  )
}
