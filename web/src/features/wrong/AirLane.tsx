import type { Wrong } from "./queries"

const TOP = 66
const ROOM = 44
const MOST = 100

/** Humidity as it was read, and the band its kind asks. */
export function AirLane({
  evidence,
  at,
  right,
}: {
  evidence: Wrong["evidence"]
  at: (iso: string) => number
  right: number
}) {
  const y = (pct: number) => TOP + ROOM * (1 - pct / MOST)
  const read = evidence.air.filter((a) => a.humidity_pct !== null)
  const low = evidence.humidity_asked_low
  const high = evidence.humidity_asked_high
  return (
    <g>
      <text x="0" y={TOP + 22} style={{ fontSize: 13, fontWeight: 600 }} fill="currentColor">
        Humidity, %
      </text>
      {low !== null && high !== null && (
        <>
          <rect
            x={at(evidence.since)}
            y={y(high)}
            width={right - at(evidence.since)}
            height={y(low) - y(high)}
            fill="var(--chakra-colors-comfort)"
          />
          <text
            x="86"
            y={y(high) + 4}
            textAnchor="end"
            style={{ fontSize: 11 }}
            fill="var(--chakra-colors-fg-muted)"
          >
            {high}
          </text>
          <text
            x="86"
            y={y(low) + 4}
            textAnchor="end"
            style={{ fontSize: 11 }}
            fill="var(--chakra-colors-fg-muted)"
          >
            {low}
          </text>
        </>
      )}
      {read.length > 0 ? (
        <path
          d={`M${read.map((a) => `${at(a.on)} ${y(a.humidity_pct ?? 0)}`).join("L")}`}
          stroke="currentColor"
          strokeWidth="1.4"
        />
      ) : (
        <text x="100" y={TOP + 26} style={{ fontSize: 12 }} fill="var(--chakra-colors-fg-muted)">
          not measured here
        </text>
      )}
    </g>
  )
}
