import type { ScaleLogarithmic } from "d3-scale"
import type { Schemas } from "../../../api/client"
import { numberIn, unitName } from "../../../ui/format"
import { LaneTitle, type LaneProps } from "./LaneTitle"
import { Runoffs } from "./Runoffs"
import { asDate, saltScale } from "./scales"

type Point = Schemas["Point"]
type Y = ScaleLogarithmic<number, number>

const path = (points: Point[], px: (p: Point) => number, py: (p: Point) => number) =>
  points.map((p, i) => `${i ? "L" : "M"}${px(p).toFixed(1)} ${py(p).toFixed(1)}`).join("")

function Band({
  points,
  px,
  y,
  ahead,
}: {
  points: Point[]
  px: (p: Point) => number
  y: Y
  ahead?: boolean
}) {
  if (points.length === 0) return null
  const up = path(points, px, (p) => y(p.high))
  const down = points
    .toReversed()
    .map((p) => `L${px(p).toFixed(1)} ${y(p.low).toFixed(1)}`)
    .join("")
  return (
    <>
      <path d={`${up}${down}Z`} fill="currentColor" opacity={ahead ? 0.07 : 0.13} />
      <path
        d={path(points, px, (p) => y(p.reading))}
        fill="none"
        stroke="currentColor"
        strokeWidth="1.8"
        strokeDasharray={ahead ? "5 4" : undefined}
      />
    </>
  )
}

/** Predicted reading with its range, comfortable box, ceiling, and runoffs turned into readings. */
export function SaltLane({ page, x, w, gutter, width, top, height }: LaneProps) {
  const { row, root_zone: z } = page
  const y = saltScale(page, top + 18, top + height - 10)
  const px = (p: { on: string }) => x(asDate(p.on))
  const history = z.history.filter((p) => asDate(p.on) >= w.from)
  const last = history.at(-1)
  const ahead = [...(last ? [last] : []), ...z.ahead.filter((p) => asDate(p.on) <= w.to)]
  const right = width - 12
  return (
    <g>
      <rect
        x={gutter}
        y={y(row.ideal_high_uS_cm)}
        width={right - gutter}
        height={Math.max(0, y(row.ideal_low_uS_cm) - y(row.ideal_high_uS_cm))}
        fill="var(--chakra-colors-comfort)"
      />
      <LaneTitle
        gutter={gutter}
        top={top}
        title="Root zone"
        unit={`as a reading, ${unitName("µS/cm")}`}
      />
      {y
        .ticks(4)
        .filter((t) => [1, 2, 5].includes(Number(String(t)[0])) && y(t) > top + 44)
        .map((t) => (
          <g key={t}>
            <line
              x1={gutter}
              x2={right}
              y1={y(t)}
              y2={y(t)}
              stroke="var(--chakra-colors-border)"
              strokeWidth="0.7"
            />
            <text
              x={gutter > 40 ? gutter - 6 : gutter + 2}
              y={y(t) + 4}
              textAnchor={gutter > 40 ? "end" : "start"}
              style={{ fontSize: 11 }}
              fill="var(--chakra-colors-fg-muted)"
            >
              {numberIn(t, "µS/cm")}
            </text>
          </g>
        ))}
      <line
        x1={gutter}
        x2={right}
        y1={y(row.ceiling_uS_cm)}
        y2={y(row.ceiling_uS_cm)}
        stroke="currentColor"
        strokeWidth="1.5"
        strokeDasharray="6 4"
      />
      <text
        style={{ fontSize: 11.5 }}
        x={right}
        y={y(row.ceiling_uS_cm) - 5}
        textAnchor="end"
        fill="currentColor"
      >
        ceiling {numberIn(row.ceiling_uS_cm, "µS/cm")}
      </text>
      <text
        style={{ fontSize: 11.5 }}
        x={right}
        y={Math.min(y(row.ideal_low_uS_cm) - 5, top + height - 12)}
        textAnchor="end"
        fill="var(--chakra-colors-state-good)"
      >
        comfortable
      </text>
      <Band points={history} px={px} y={y} />
      <Band points={ahead} px={px} y={y} ahead />
      {page.by_medium && (
        <g aria-hidden="true">
          <path
            d={`M${x(asDate(page.today)) - 5} ${y(page.by_medium.high)}h10m-5 0V${y(page.by_medium.low)}m-5 0h10`}
            fill="none"
            stroke="currentColor"
            strokeWidth="1.2"
            strokeDasharray="3 2"
          >
            <title>range by its medium alone</title>
          </path>
        </g>
      )}
      <Runoffs seen={z.observations.filter((o) => asDate(o.on) >= w.from)} x={x} y={y} />
    </g>
  )
}
