import { Box } from "@chakra-ui/react"
import { scaleLinear } from "d3-scale"
import { DataTable } from "../../ui/DataTable"
import { day, figure } from "../../ui/format"

type Point = { on: string; value: number }

/** Values over days, with a limit if there is one; a table behind it for those who cannot see it. */
export function LineChart({
  points,
  today,
  unit,
  limit,
  fromZero,
}: {
  points: readonly Point[]
  today: string
  unit: string
  limit?: number
  fromZero?: boolean
}) {
  const time = (on: string) => (Date.parse(on) - Date.parse(today)) / 86_400_000
  const values = [...points.map((p) => p.value), ...(limit === undefined ? [] : [limit])]
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const pad = Math.max((high - low) * 0.15, Math.abs(high) * 0.01)
  const x = scaleLinear()
    .domain([time(points[0]?.on ?? today), 0])
    .range([8, 332])
  const y = scaleLinear()
    .domain([fromZero ? 0 : low - pad, high + pad])
    .nice()
    .range([104, 10])
  const line = points
    .map((p, i) => `${i ? "L" : "M"}${x(time(p.on)).toFixed(1)} ${y(p.value).toFixed(1)}`)
    .join("")
  const muted = "var(--chakra-colors-fg-muted)"
  return (
    <>
      <Box asChild color="fg" w="100%" maxW="460px" mt="1">
        <svg
          viewBox="0 0 340 124"
          role="img"
          aria-label={[
            `${points.length} values`,
            `from ${figure(points[0]?.value ?? 0)} to ${figure(points.at(-1)?.value ?? 0)} ${unit}`,
          ].join(", ")}
        >
          {y.ticks(3).map((t) => (
            <g key={t}>
              <line x1="8" x2="332" y1={y(t)} y2={y(t)} stroke="var(--chakra-colors-border)" />
              <text style={{ fontSize: 10 }} x="8" y={y(t) - 3} fill={muted}>
                {t}
              </text>
            </g>
          ))}
          {limit !== undefined && (
            <line
              x1="8"
              x2="332"
              y1={y(limit)}
              y2={y(limit)}
              stroke="currentColor"
              strokeWidth="2"
            />
          )}
          <path d={line} fill="none" stroke="currentColor" strokeWidth="1.3" opacity="0.6" />
          {points.map((p, i) => (
            <circle
              key={`${p.on}-${i}`}
              cx={x(time(p.on))}
              cy={y(p.value)}
              r="2.6"
              fill="var(--chakra-colors-bg-panel)"
              stroke="currentColor"
              strokeWidth="1.2"
            />
          ))}
          <text style={{ fontSize: 10 }} x="8" y="120" fill={muted}>
            {day(points[0]?.on ?? today, today)}
          </text>
          <text style={{ fontSize: 10 }} x="332" y="120" textAnchor="end" fill={muted}>
            today · {unit}
          </text>
        </svg>
      </Box>
      <details style={{ fontSize: "13px" }}>
        <summary style={{ cursor: "pointer", padding: "6px 0" }}>
          The {points.length} values as a table
        </summary>
        <DataTable label={`Values, ${unit}`} head={["Day", unit]} minW="200px">
          {points.toReversed().map((p, i) => (
            <tr key={`${p.on}-${i}`}>
              <td>{day(p.on, today)}</td>
              <td>{figure(p.value, 4)}</td>
            </tr>
          ))}
        </DataTable>
      </details>
    </>
  )
}
