import { useWidth } from "../../ui/useWidth"
import type { Backup } from "./queries"

const LEFT = 14
const YEAR_h = 8766
const MARKS = [
  { h: 2, label: "" },
  { h: 24, label: "1 day" },
  { h: 168, label: "1 week" },
  { h: 730, label: "1 month" },
  { h: YEAR_h, label: "1 year" },
]

/** How far back the collection can be turned: a mark a backup, dense near now and thin far back. */
export function BackupLine({ backups }: { backups: Backup[] }) {
  const [ref, width] = useWidth<HTMLDivElement>(560)
  const at = (hours: number) =>
    LEFT + ((width - 2 * LEFT) * Math.log1p(Math.max(0, hours))) / Math.log1p(YEAR_h * 1.2)
  const spoken = backups.map((b) => `${b.age}, ${b.why}`).join("; ") || "none"
  return (
    <div ref={ref}>
      <svg width={width} height="62" role="img" aria-label={`Backups: ${spoken}`}>
        <line x1={LEFT} x2={width - LEFT} y1="26" y2="26" stroke="currentColor" opacity="0.5" />
        {MARKS.map((m) => (
          <g key={m.h}>
            <line x1={at(m.h)} x2={at(m.h)} y1="26" y2="34" stroke="currentColor" opacity="0.5" />
            <text
              x={at(m.h)}
              y="50"
              textAnchor={m.h > 2000 ? "end" : "middle"}
              style={{ fontSize: 13 }}
              fill="var(--chakra-colors-fg-muted)"
            >
              {m.label}
            </text>
          </g>
        ))}
        <text x={LEFT} y="50" style={{ fontSize: 13 }} fill="var(--chakra-colors-fg-muted)">
          now
        </text>
        {backups.map((b) => (
          <path
            key={b.name}
            d={`M${at(b.age_h)} 6 v20`}
            stroke="var(--chakra-colors-fg)"
            strokeWidth="4"
            strokeLinecap="round"
            opacity={b.why.startsWith("before") ? 0.45 : 1}
          />
        ))}
      </svg>
    </div>
  )
}
