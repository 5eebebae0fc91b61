import { Text } from "@chakra-ui/react"
import { scaleLinear } from "d3-scale"
import { Card } from "../../ui/Page"
import { useWidth } from "../../ui/useWidth"
import { Quantity } from "../../ui/Quantity"
import type { Chosen } from "./queries"
import { spokenRuler } from "./spoken"
import { change, range } from "./words"

const LINE = 92
const EDGE = 34

/** One ruler: what was measured, what is believable, what comes by itself, and what so many pairs could show. */
export function Ruler({ chosen }: { chosen: Chosen }) {
  const [ref, wide] = useWidth<HTMLDivElement>(640)
  const r = chosen.answer.result
  const unit = chosen.unit
  const low = r.low_shown
  const high = r.high_shown
  if (low === null || high === null || r.measured_shown === null) {
    return (
      <Card title="How far this can see" mt="4">
        <Text>
          {r.sentence} Smallest difference that would show four times in five:{" "}
          {r.sight.map((s) => `${s.pairs} pairs ${Math.round(s.percent)} ${unit}`).join(", ")}.
        </Text>
      </Card>
    )
  }
  const ends = [low, high, r.measured_shown, ...r.sight.map((s) => s.percent)]
  const x = scaleLinear()
    .domain([Math.min(...ends, 0) - 4, Math.max(...ends) + 4])
    .nice()
    .range([EDGE, wide - EDGE])
  const itself = r.by_itself_shown ?? 0
  return (
    <Card
      title={
        chosen.answer.result.against === "twin"
          ? "How far one pair can see"
          : "How far one plant can see"
      }
      mt="4"
    >
      <Text fontSize="sm" color="fg.muted">
        Marks above: the smallest difference that so many pairs would show, four times in five. One
        pair shows none.
      </Text>
      <div ref={ref}>
        <svg
          viewBox={`0 0 ${wide} 160`}
          width="100%"
          role="img"
          fill="none"
          aria-label={spokenRuler(r, itself, unit)}
        >
          {r.sight.map((s, i) => (
            <g key={s.pairs} fill="currentColor">
              <path d={`M${x(s.percent)} 40l-5 -8h10z`} />
              <text
                x={x(s.percent)}
                y={i % 2 ? 12 : 26}
                textAnchor="middle"
                style={{ fontSize: 12 }}
              >
                {s.pairs} pairs
              </text>
            </g>
          ))}
          {Math.abs(itself) > 0.5 && (
            <rect
              x={Math.min(x(0), x(itself))}
              y={LINE - 34}
              width={Math.abs(x(itself) - x(0))}
              height="68"
              fill="var(--chakra-colors-phase-other)"
            />
          )}
          <line
            x1={x(0)}
            x2={x(0)}
            y1="46"
            y2={LINE + 34}
            stroke="currentColor"
            strokeWidth="1.6"
          />
          <line
            x1={EDGE}
            x2={wide - EDGE}
            y1={LINE}
            y2={LINE}
            stroke="currentColor"
            opacity="0.4"
          />
          <rect
            x={x(low)}
            y={LINE - 7}
            width={x(high) - x(low)}
            height="14"
            rx="7"
            fill="var(--chakra-colors-comfort)"
            stroke="var(--chakra-colors-leaf-edge)"
          />
          <circle cx={x(r.middle_shown ?? 0)} cy={LINE} r="4" fill="currentColor" />
          <path
            d={`M${x(r.measured_shown)} ${LINE - 6}l6 6 -6 6 -6 -6z`}
            fill="var(--chakra-colors-bg-panel)"
            stroke="currentColor"
            strokeWidth="1.4"
          />
          {x.ticks(wide < 520 ? 5 : 9).map((t) => (
            <text
              key={t}
              x={x(t)}
              y="150"
              textAnchor="middle"
              style={{ fontSize: 12 }}
              fill="var(--chakra-colors-fg-muted)"
            >
              {change(t, "").trim()}
            </text>
          ))}
        </svg>
      </div>
      <Text>
        Measured{" "}
        <Quantity
          label="Measured difference"
          value={r.measured_shown}
          unit={unit}
          working={{ kind: "here", working: chosen.answer.working }}
        />
        {Math.abs(itself) > 0.5 && <>, of which {change(itself, unit)} would have come by itself</>}
        ; after weighing {change(r.middle_shown, unit)}, believable {range(low, high, unit)} (80 in
        100).
      </Text>
    </Card>
  )
}
