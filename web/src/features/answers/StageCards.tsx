import { day } from "../../ui/format"
import type { Help } from "./queries"

const HIGH = 44
const LEAST = 104

/** Stages of knowing in reading order, each tied by a thread to its true day. */
export function StageCards({
  stages,
  at,
  wide,
  foot,
}: {
  stages: Help["stages"]
  at: (iso: string) => number
  wide: number
  foot: number
}) {
  const many = Math.max(1, Math.min(stages.length, Math.floor((wide - 92) / LEAST)))
  const now = stages.findIndex((s) => s.state === "now")
  const from = Math.max(
    0,
    Math.min(stages.length - many, (now < 0 ? stages.length : now) - many + 2),
  )
  const shown = stages.slice(from, from + many)
  const step = (wide - 92 - 6) / many
  return (
    <g>
      {shown.map((s, i) => {
        const left = 92 + i * step
        const mid = left + (step - 8) / 2
        const to = Math.max(92, at(s.since))
        const here = s.state === "now"
        return (
          <g key={s.name}>
            <path
              d={`M${mid} ${HIGH} C ${mid} ${foot}, ${to} ${HIGH + 6}, ${to} ${foot + 6}`}
              stroke="currentColor"
              opacity={s.state === "to come" ? 0.3 : 0.55}
              strokeDasharray={s.state === "to come" ? "3 3" : undefined}
            />
            <rect
              x={left}
              y="1"
              width={step - 8}
              height={HIGH - 1}
              rx="4"
              fill={here ? "var(--chakra-colors-ink-solid)" : "var(--chakra-colors-bg-panel)"}
              stroke="var(--chakra-colors-border-strong)"
              strokeDasharray={s.state === "to come" ? "3 3" : undefined}
            />
            <text
              x={left + 7}
              y="17"
              style={{ fontSize: 12.5, fontWeight: 600 }}
              fill={here ? "var(--chakra-colors-ink-contrast)" : "currentColor"}
            >
              {s.name}
            </text>
            <text
              x={left + 7}
              y="34"
              style={{ fontSize: 11.5 }}
              fill={here ? "var(--chakra-colors-ink-contrast)" : "var(--chakra-colors-fg-muted)"}
            >
              {s.state === "to come" ? `about ${day(s.since)}` : day(s.since)}
            </text>
          </g>
        )
      })}
    </g>
  )
}
