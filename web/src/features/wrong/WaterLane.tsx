import { numberIn } from "../../ui/format"
import type { Wrong } from "./queries"

/** Waters it drank, one band a run. */
export function WaterLane({
  evidence,
  at,
}: {
  evidence: Wrong["evidence"]
  at: (iso: string) => number
}) {
  const names = [...new Set(evidence.waters.map((w) => w.water))]
  const labelled = apart(evidence.runoffs, at)
  return (
    <g>
      <text x="0" y="38" style={{ fontSize: 13, fontWeight: 600 }} fill="currentColor">
        Water
      </text>
      {evidence.waters.map((w) => {
        const wide = Math.max(3, at(w.until) - at(w.since))
        return (
          <g key={w.since}>
            <rect
              x={at(w.since)}
              y="24"
              width={wide}
              height="20"
              rx="3"
              fill={
                names.indexOf(w.water) % 2
                  ? "var(--chakra-colors-ink-emphasized)"
                  : "var(--chakra-colors-ink-muted)"
              }
            />
            {wide > 70 && (
              <text x={at(w.since) + 6} y="38" style={{ fontSize: 12 }} fill="currentColor">
                {w.water.slice(0, Math.floor(wide / 7))}
              </text>
            )}
          </g>
        )
      })}
      {evidence.runoffs.map(({ on, ec_uS_cm: ec }) => (
        <g key={on} stroke="currentColor">
          <path
            d={`M${at(on)} 48l5 5 -5 5 -5 -5z`}
            fill="var(--chakra-colors-bg-panel)"
            strokeWidth="1.4"
          />
          {labelled.has(on) && (
            <text
              x={at(on) - 8}
              y="57"
              textAnchor="end"
              stroke="none"
              fill="currentColor"
              style={{ fontSize: 11.5, fontWeight: 600 }}
            >
              runoff {numberIn(ec, "µS/cm")}
            </text>
          )}
        </g>
      ))}
    </g>
  )
}

const ROOM = 84 // px a label takes

/** Which runoffs have room for their figure: the newest always, older ones where they do not touch. */
function apart(runoffs: Wrong["evidence"]["runoffs"], at: (iso: string) => number): Set<string> {
  const kept: string[] = []
  for (const r of [...runoffs].reverse()) {
    const last = kept.at(-1)
    if (last === undefined || at(last) - at(r.on) >= ROOM) kept.push(r.on)
  }
  return new Set(kept)
}
