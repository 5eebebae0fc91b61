import { Text } from "@chakra-ui/react"
import { scaleTime } from "d3-scale"
import { amount, day, tick } from "../../ui/format"
import { Card } from "../../ui/Page"
import { useWidth } from "../../ui/useWidth"
import { asDay } from "../leaf/axis"
import { AirLane } from "./AirLane"
import { LeafLane } from "./LeafLane"
import type { Letters } from "./letters"
import type { Wrong } from "./queries"
import { WaterLane } from "./WaterLane"

const LEFT = 92
const TALL = 178

function spoken(e: Wrong["evidence"]): string {
  const waters = e.waters.map((w) => `${w.water} from ${day(w.since)}`)
  const leaves = e.leaves.map((l) => {
    const seen = `${l.marked ? "marked" : "clean"} ${day(l.seen_on)}`
    return `leaf ${l.number ?? ""} begun ${day(l.begun_on)}, ${seen}`
  })
  const runoffs = e.runoffs.map((r) => `${day(r.on)} ${amount(r.ec_uS_cm, "µS/cm")}`)
  return [
    `Waters: ${waters.join(", ") || "none logged"}`,
    `Leaves: ${leaves.join(", ") || "none"}`,
    `Runoffs: ${runoffs.join(", ") || "none read"}`,
  ].join(". ")
}

/** What the log holds on one axis: waters, air, leaves while they formed, runoffs; each dated piece with its letter. */
export function AxisCard({ page, letters }: { page: Wrong; letters: Letters }) {
  const [ref, wide] = useWidth<HTMLDivElement>(760)
  const e = page.evidence
  const x = scaleTime()
    .domain([asDay(e.since), asDay(page.today)])
    .range([LEFT, wide - 14])
  const at = (iso: string) => Math.max(LEFT, Math.min(wide - 14, x(asDay(iso))))
  return (
    <Card label="What the log holds">
      <div ref={ref}>
        <svg
          viewBox={`0 0 ${wide} ${TALL}`}
          width="100%"
          role="img"
          aria-label={spoken(e)}
          fill="none"
        >
          {x.ticks(wide < 520 ? 3 : 7).map((t) => (
            <g key={+t}>
              <line
                x1={x(t)}
                x2={x(t)}
                y1="20"
                y2={TALL - 22}
                stroke="currentColor"
                opacity="0.12"
              />
              <text
                x={x(t)}
                y={TALL - 6}
                textAnchor="middle"
                style={{ fontSize: 12 }}
                fill="var(--chakra-colors-fg-muted)"
              >
                {tick(t)}
              </text>
            </g>
          ))}
          <WaterLane evidence={e} at={at} />
          <AirLane evidence={e} at={at} right={wide - 14} />
          <LeafLane evidence={e} at={at} />
          <line
            x1={wide - 14}
            x2={wide - 14}
            y1="16"
            y2={TALL - 22}
            stroke="currentColor"
            strokeWidth="1.6"
          />
          {[...letters].map(([on, letter], i) => (
            <g key={on}>
              <rect
                x={at(on) - 8}
                y={2 + 0 * i}
                width="16"
                height="15"
                rx="3"
                fill="var(--chakra-colors-bg-panel)"
                stroke="currentColor"
                strokeWidth="1.4"
              />
              <text
                x={at(on)}
                y="13.5"
                textAnchor="middle"
                fill="currentColor"
                style={{ fontSize: 11, fontWeight: 700 }}
              >
                {letter}
              </text>
            </g>
          ))}
        </svg>
      </div>
      {e.exposures.length > 0 && (
        <Text fontSize="sm" color="fg.muted">
          {e.exposures
            .filter((x) => x.words && (x.spans ?? []).length > 0)
            .map((x) => x.words)
            .join("; ")}
        </Text>
      )}
    </Card>
  )
}
