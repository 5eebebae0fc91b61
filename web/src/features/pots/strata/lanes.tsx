import type { ScaleTime } from "d3-scale"
import type { Schemas } from "../../../api/client"
import { saltColour } from "../../../app/ramp"
import { asDate, type Window } from "./scales"

export type LaneProps = {
  page: Schemas["PotPage"]
  x: ScaleTime<number, number>
  w: Window
  gutter: number
  width: number
  top: number
  height: number
}

const muted = "var(--chakra-colors-fg-muted)"

/** Name of a lane, in the gutter or, on narrow screens, inside. */
export function LaneTitle({ gutter, top, title, unit }: { gutter: number; top: number; title: string; unit?: string }) {
  return gutter > 40 ? (
    <>
      <text style={{ fontSize: 13, fontWeight: 600 }} x="14" y={top + 20} fill="currentColor">
        {title}
      </text>
      {unit && (
        <text style={{ fontSize: 11 }} x="14" y={top + 37} fill={muted}>
          {unit}
        </text>
      )}
    </>
  ) : (
    <text style={{ fontSize: 11, fontWeight: 600 }} x="8" y={top + 13} fill="currentColor">
      {title}
      {unit ? `, ${unit}` : ""}
    </text>
  )
}

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
              <text style={{ fontSize: 12 }} x={from + 8} y={top + height / 2 + 4} fill="currentColor">
                {p.phase}
              </text>
            )}
          </g>
        )
      })}
    </g>
  )
}

export function PourLane({ page, x, w, gutter, top, height }: LaneProps) {
  const rows = page.pours.filter((p) => asDate(p.on) >= w.from)
  const most = Math.max(...rows.map((p) => p.volume_L ?? 0), 0.05)
  const wide = Math.min(8, Math.max(2.5, ((x.range()[1] ?? 0) - gutter) / Math.max(rows.length, 1) / 1.7))
  const base = top + height - 4
  const tall = (v: number) => Math.sqrt(v / most) * (height - 30)
  return (
    <g>
      <LaneTitle gutter={gutter} top={top} title="Poured" unit={gutter > 40 ? "bar mL, shade EC" : undefined} />
      {rows.map((p) => {
        const h = tall(p.volume_L ?? most / 3)
        return (
          <rect
            key={p.id}
            x={x(asDate(p.on)) - wide / 2}
            y={base - h}
            width={wide}
            height={h}
            fill={p.ec_uS_cm === null ? "none" : saltColour(p.ec_uS_cm)}
            stroke="currentColor"
            strokeWidth="0.7"
            strokeDasharray={p.volume_L === null ? "2 2" : undefined}
          />
        )
      })}
      {rows
        .filter((p) => p.job === "flush")
        .map((p) => (
          <text style={{ fontSize: 11.5 }} key={p.id} x={x(asDate(p.on)) + wide} y={top + 14} fill="currentColor">
            flushed {p.volume_L} L
          </text>
        ))}
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
  return marks.map((m, i) => ({ ...m, fits: m.cx + 16 + m.words.length * 6.2 < (marks[i + 1]?.cx ?? right) }))
}
