import { amount, tick, numberIn, unitName } from "../../ui/format"
import { scaleTime } from "d3-scale"
import type { Schemas } from "../../api/client"
import { day, figure } from "../../ui/format"
import { useWidth } from "../../ui/useWidth"
import { asDay } from "../leaf/axis"

const warmth = (celsius: number | null) => (celsius === null ? "not read" : amount(celsius, "°C"))

const ROOM = 74
const TALL = 2 * ROOM + 30
const LEFT = 88
const WARM: [number, number] = [0, 40] // °C drawn
const DAMP: [number, number] = [0, 100] // % drawn

function spokenDay(d: Schemas["AirDay"]): string {
  const damp = d.humidity_pct === null ? "humidity not read" : `${figure(d.humidity_pct)} %`
  return `${day(d.on)}: ${warmth(d.night_C)} to ${warmth(d.day_C)}, ${damp}`
}

/** Days of a place: from the coldest to the warmest hour above, from the driest to the dampest below. */
export function AirDrawing({ days }: { days: Schemas["AirDay"][] }) {
  const [ref, wide] = useWidth<HTMLDivElement>(720)
  const first = days[0]
  const last = days.at(-1)
  if (!first || !last) return null
  const x = scaleTime()
    .domain([asDay(first.on), asDay(last.on)])
    .range([LEFT, wide - 10])
  const y = (value: number, [low, high]: [number, number], top: number) =>
    top + ROOM * (1 - (value - low) / (high - low))
  const bar = (
    on: string,
    low: number | null,
    high: number | null,
    span: [number, number],
    top: number,
  ) => {
    if (low === null && high === null) return null
    const a = y(low ?? high ?? 0, span, top)
    const b = y(high ?? low ?? 0, span, top)
    return (
      <line
        key={`${on}${top}`}
        x1={x(asDay(on))}
        x2={x(asDay(on))}
        y1={Math.max(a, b + 3)}
        y2={b}
        stroke="currentColor"
        strokeWidth="3"
        strokeLinecap="round"
      />
    )
  }
  const lanes = [
    { name: unitName("°C"), top: 8, span: WARM, at: [10, 20, 30] },
    { name: "humidity, %", top: ROOM + 14, span: DAMP, at: [40, 60, 80] },
  ]
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${wide} ${TALL}`}
        width="100%"
        role="img"
        fill="none"
        aria-label={days.slice(-14).map(spokenDay).join("; ")}
      >
        {lanes.map((l) => (
          <g key={l.name}>
            <text x="0" y={l.top + 4} style={{ fontSize: 12 }} fill="currentColor">
              {l.name}
            </text>
            {l.at.map((v) => (
              <g key={v}>
                <line
                  x1={LEFT}
                  x2={wide - 10}
                  y1={y(v, l.span, l.top)}
                  y2={y(v, l.span, l.top)}
                  stroke="currentColor"
                  opacity="0.15"
                />
                <text
                  x={LEFT - 5}
                  y={y(v, l.span, l.top) + 4}
                  textAnchor="end"
                  style={{ fontSize: 11 }}
                  fill="var(--chakra-colors-fg-muted)"
                >
                  {l.span === WARM ? numberIn(v, "°C") : v}
                </text>
              </g>
            ))}
          </g>
        ))}
        {days.map((d) => bar(d.on, d.night_C, d.day_C, WARM, 6))}
        {days.map((d) =>
          bar(
            d.on,
            d.humidity_low_pct ?? d.humidity_pct,
            d.humidity_high_pct ?? d.humidity_pct,
            DAMP,
            ROOM + 14,
          ),
        )}
        {x.ticks(wide < 520 ? 3 : 6).map((t) => (
          <text
            key={+t}
            x={x(t)}
            y={TALL - 2}
            textAnchor="middle"
            style={{ fontSize: 12 }}
            fill="var(--chakra-colors-fg-muted)"
          >
            {tick(t)}
          </text>
        ))}
      </svg>
    </div>
  )
}
