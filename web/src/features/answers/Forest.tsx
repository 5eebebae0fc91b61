import { Text } from "@chakra-ui/react"
import { scaleLinear } from "d3-scale"
import type { Schemas } from "../../api/client"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { useWidth } from "../../ui/useWidth"
import { spokenForest } from "./spoken"
import { change } from "./words"

const ROW = 24
const NAME = 118

/** One question in several plants: each answer with its range, as wide as it is open, and all of them together. */
export function Forest({ question }: { question: Schemas["QuestionOut"] }) {
  const [ref, wide] = useWidth<HTMLDivElement>(420)
  const t = question.together?.result
  if (!t || !question.together) return null
  const rows = t.rows.slice(0, 14)
  const ends = [0, t.low_shown, t.high_shown, ...rows.flatMap((r) => [r.low_shown, r.high_shown])]
  const x = scaleLinear()
    .domain([Math.min(...ends), Math.max(...ends)])
    .nice()
    .range([NAME, wide - 10])
  const tall = ROW * (rows.length + 1) + 34
  const y = (i: number) => ROW * i + 18
  const all = y(rows.length)
  return (
    <Card title={`${question.question}: ${question.asked} asked`} mb="4">
      <div ref={ref}>
        <svg
          viewBox={`0 0 ${wide} ${tall}`}
          width="100%"
          role="img"
          fill="none"
          aria-label={spokenForest(rows, t, question.unit)}
        >
          <line x1={x(0)} x2={x(0)} y1="4" y2={tall - 22} stroke="currentColor" opacity="0.5" />
          {rows.map((r, i) => (
            <g key={`${r.name}${i}`} stroke="var(--chakra-colors-leaf-edge)">
              <text x="0" y={y(i) + 4} stroke="none" fill="currentColor" style={{ fontSize: 12 }}>
                {r.name.slice(0, 18)}
              </text>
              <line
                x1={x(r.low_shown)}
                x2={x(r.high_shown)}
                y1={y(i)}
                y2={y(i)}
                strokeWidth="1.6"
              />
              <rect
                x={x(r.measured_shown) - 2 - 6 * r.weight}
                y={y(i) - 2 - 6 * r.weight}
                width={4 + 12 * r.weight}
                height={4 + 12 * r.weight}
                fill="var(--chakra-colors-leaf)"
              />
            </g>
          ))}
          <text x="0" y={all + 4} fill="currentColor" style={{ fontSize: 12, fontWeight: 700 }}>
            together
          </text>
          <path
            d={[
              `M${x(t.low_shown)} ${all}L${x(t.middle_shown)} ${all - 7}`,
              `L${x(t.high_shown)} ${all}L${x(t.middle_shown)} ${all + 7}Z`,
            ].join("")}
            fill="currentColor"
          />
          {x.ticks(4).map((v) => (
            <text
              key={v}
              x={x(v)}
              y={tall - 4}
              textAnchor="middle"
              style={{ fontSize: 12 }}
              fill="var(--chakra-colors-fg-muted)"
            >
              {change(v, "").trim()}
            </text>
          ))}
        </svg>
      </div>
      <Text>
        <Quantity
          label={`${question.question}, together`}
          value={t.middle_shown}
          unit={question.unit}
          working={{ kind: "here", working: question.together.working }}
        />
        . {t.sentence}
      </Text>
    </Card>
  )
}
