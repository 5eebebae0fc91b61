import { Box } from "@chakra-ui/react"
import { scaleLinear, scaleLog } from "d3-scale"
import type { Schemas } from "../../api/client"
import { numberIn } from "../../ui/format"
import { LiveReadings } from "./LiveReadings"

const W = 360
const H = 210
const GUTTER = 44

/** Runoff against litres drained: measured diamonds, the curve ahead with its range, the plan dotted, the stop. */
export function LiveChart({ f }: { f: Schemas["FlushOut"] }) {
  const { curve } = f.live.result
  const read = f.passes.filter((p) => p.runoff_uS_cm !== null)
  const ahead = curve.slice(Math.max(0, f.passes.length - (read.length > 0 ? 1 : 0)))
  const values = [
    f.stop_runoff_uS_cm,
    ...read.map((p) => p.runoff_uS_cm ?? 0),
    ...ahead.flatMap((c) => [c.low_uS_cm, c.high_uS_cm]),
    ...f.planned.map((c) => c.runoff_uS_cm),
  ].filter((v) => v > 0)
  const x = scaleLinear()
    .domain([
      0,
      Math.max(0.1, ...ahead.map((c) => c.litres), ...f.passes.map((p) => p.drained_after_L)),
    ])
    .range([GUTTER, W - 10])
  const y = scaleLog()
    .domain([Math.min(...values) * 0.85, Math.max(...values) * 1.12])
    .range([H - 24, 12])
  const line = (points: readonly { litres: number; runoff_uS_cm: number }[]) =>
    points
      .map((c, i) => `${i ? "L" : "M"}${x(c.litres).toFixed(1)} ${y(c.runoff_uS_cm).toFixed(1)}`)
      .join("")
  const band = [
    ...ahead.map((c) => `${x(c.litres).toFixed(1)} ${y(c.high_uS_cm).toFixed(1)}`),
    ...ahead.toReversed().map((c) => `${x(c.litres).toFixed(1)} ${y(c.low_uS_cm).toFixed(1)}`),
  ]
  const stop = y(f.stop_runoff_uS_cm)
  const says = [
    `Runoff by litres: ${read.map((p) => numberIn(p.runoff_uS_cm ?? 0, "µS/cm")).join(", ") || "none read yet"}`,
    `stop under ${numberIn(f.stop_runoff_uS_cm, "µS/cm")}`,
  ].join("; ")
  const next = f.live.result.next_runoff
  return (
    <Box asChild w="100%" color="fg" mt="2" display="block">
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={says}>
        <rect
          x={GUTTER}
          y={stop}
          width={W - 10 - GUTTER}
          height={H - 24 - stop}
          fill="var(--chakra-colors-comfort)"
        />
        {y
          .ticks(5)
          .filter((t) => [1, 2, 4, 7].includes(Number(String(t)[0])))
          .map((t) => (
            <g key={t}>
              <line
                x1={GUTTER}
                x2={W - 10}
                y1={y(t)}
                y2={y(t)}
                stroke="var(--chakra-colors-border)"
              />
              <text
                x={GUTTER - 5}
                y={y(t) + 4}
                textAnchor="end"
                style={{ fontSize: 11 }}
                fill="currentColor"
              >
                {numberIn(t, "µS/cm")}
              </text>
            </g>
          ))}
        <path d={`M${band.join("L")}Z`} fill="currentColor" opacity="0.12" />
        <path
          d={line(f.planned)}
          fill="none"
          stroke="currentColor"
          strokeDasharray="2 3"
          opacity="0.6"
        />
        <path
          d={line(ahead)}
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
          strokeDasharray="6 4"
        />
        <line x1={GUTTER} x2={W - 10} y1={stop} y2={stop} stroke="currentColor" strokeWidth="2.5" />
        <text
          x={GUTTER + 6}
          y={stop + 14}
          style={{ fontSize: 12, fontWeight: 600 }}
          fill="currentColor"
        >
          stop under {numberIn(f.stop_runoff_uS_cm, "µS/cm")}
        </text>
        <path
          d={line(
            read.map((p) => ({ litres: p.drained_after_L, runoff_uS_cm: p.runoff_uS_cm ?? 1 })),
          )}
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
        />
        <LiveReadings
          read={read.map((p) => ({
            id: p.id,
            x: x(p.drained_after_L),
            y: y(p.runoff_uS_cm ?? 1),
            said: numberIn(p.runoff_uS_cm ?? 0, "µS/cm"),
          }))}
          stop={stop}
        />
        {next && !f.ended_as && (
          <text x={W - 12} y="14" textAnchor="end" style={{ fontSize: 12 }} fill="currentColor">
            next {numberIn(next.low_uS_cm, "µS/cm")} to {numberIn(next.high_uS_cm, "µS/cm")}
          </text>
        )}
        <text x={W - 12} y={H - 8} textAnchor="end" style={{ fontSize: 11 }} fill="currentColor">
          litres drained
        </text>
        {x.ticks(4).map((t) => (
          <text
            key={t}
            x={x(t)}
            y={H - 8}
            textAnchor="middle"
            style={{ fontSize: 11 }}
            fill="currentColor"
          >
            {t > 0 && x(t) < W - 90 ? t : ""}
          </text>
        ))}
      </svg>
    </Box>
  )
}
