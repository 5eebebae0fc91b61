import { Box } from "@chakra-ui/react"
import { scaleLog } from "d3-scale"
import type { Schemas } from "../../api/client"
import { saltGradient } from "../../app/ramp"
import { numberIn } from "../../ui/format"
import { useWidth } from "../../ui/useWidth"
import { placeBeside, placeCentred } from "./waterlineLayout"
import { FloatingWater } from "./FloatingWater"
import { sameLimit } from "./sameLimit"

const LOW = 5

const HIGH = 2000

const TICKS = [5, 10, 20, 50, 100, 200, 500, 1000, 2000]

const PAD = 26

const ROW = 54

type Props = { page: Schemas["WaterPage"]; chosen?: number; onChoose: (id: number) => void }

/** The axis is the water's surface: waters float above it, plants hang below at the most they may drink. */
export function Waterline({ page, chosen, onChoose }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(900)
  const padRight = width < 560 ? 126 : PAD // room for the last labels, so that none turns back over its neighbours
  const x = scaleLog()
    .domain([LOW, HIGH])
    .range([PAD, width - padRight])
    .clamp(true)
  const waters = page.waters
  const floats = waters.map((w) => ({
    key: String(w.id),
    x: x(w.reckoned_uS_cm),
    width: Math.max(w.name.length + 5, 13) * 7.4,
  }))
  const narrow = width < 560 // names stand beside their float there, each higher than the stems to its right
  const above = narrow ? placeBeside(floats, width) : placeCentred(floats, width)
  const alike = sameLimit(page.groups, width < 560 ? 1 : 3)
  const below = placeBeside(
    alike.map((g) => ({ key: g.names, x: x(g.limit), width: (g.names.length + 5) * 6.6 })),
    width,
  )
  const aboveRows = Math.max(1, ...above.map((a) => a.row + 1))
  const belowRows = Math.max(1, ...below.map((b) => b.row + 1))
  const surface = aboveRows * ROW + 34
  const height = surface + 46 + belowRows * 22
  const ticks = width < 520 ? TICKS.filter((t) => [5, 20, 100, 500, 2000].includes(t)) : TICKS
  return (
    <Box ref={ref} bg="bg.panel" borderWidth="1px" borderRadius="lg" py="3" overflow="hidden">
      <Box asChild color="fg" display="block">
        <svg
          width={width}
          height={height}
          role="group"
          aria-label="Waters by conductivity, above the most each kind of plant may drink"
        >
          {above.map((a) => {
            const w = waters.find((v) => String(v.id) === a.key)
            if (!w) return null
            const y = surface - 36 - a.row * ROW
            const label = narrow
              ? {
                  x: a.right ? a.x - 18 : a.x + 18,
                  textAnchor: a.right ? ("end" as const) : ("start" as const),
                }
              : { x: a.left + a.width / 2, textAnchor: "middle" as const }
            const line = narrow ? y + 4 : y - 20
            const from = x(Math.max(w.low_uS_cm, LOW))
            return (
              <FloatingWater
                key={a.key}
                w={w}
                a={a}
                y={y}
                line={line}
                label={label}
                surface={surface}
                from={from}
                to={Math.max(from + 3, x(Math.max(w.high_uS_cm, LOW)))}
                chosen={w.id === chosen}
                onChoose={onChoose}
              />
            )
          })}
          <foreignObject
            x={PAD}
            y={surface}
            width={Math.max(0, width - PAD - padRight)}
            height="12"
          >
            <div
              style={{
                height: 12,
                background: `linear-gradient(90deg, ${saltGradient(LOW, HIGH)})`,
              }}
            />
          </foreignObject>
          {ticks.map((t) => (
            <text
              style={{ fontSize: 11.5 }}
              key={t}
              x={x(t)}
              y={surface + 27}
              textAnchor="middle"
              fill="var(--chakra-colors-fg-muted)"
            >
              {numberIn(t, "µS/cm")}
            </text>
          ))}
          {below.map((b) => {
            const g = alike.find((v) => v.names === b.key)
            if (!g) return null
            const y = surface + 50 + b.row * 22
            return (
              <g key={b.key}>
                <line
                  x1={b.x}
                  x2={b.x}
                  y1={surface + 32}
                  y2={y - 5}
                  stroke="var(--chakra-colors-border-strong)"
                  strokeWidth="1"
                />
                <path
                  d={`M${b.x} ${y - 7} q5 7 0 14 q-5 -7 0 -14`}
                  fill="var(--chakra-colors-leaf)"
                  stroke="var(--chakra-colors-leaf-edge)"
                />
                <text
                  style={{ fontSize: 12.5 }}
                  x={b.right ? b.x - 9 : b.x + 9}
                  y={y + 4}
                  textAnchor={b.right ? "end" : "start"}
                  fill="currentColor"
                >
                  {g.names}{" "}
                  <tspan fill="var(--chakra-colors-fg-muted)">{numberIn(g.limit, "µS/cm")}</tspan>
                </text>
              </g>
            )
          })}
        </svg>
      </Box>
    </Box>
  )
}
