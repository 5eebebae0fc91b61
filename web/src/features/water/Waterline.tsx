import { Box } from "@chakra-ui/react"
import { scaleLog } from "d3-scale"
import type { Schemas } from "../../api/client"
import { saltColour, saltGradient } from "../../app/ramp"
import { ago, figure } from "../../ui/format"
import { useWidth } from "../../ui/useWidth"
import { placeBeside, placeCentred } from "./waterlineLayout"

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
  const x = scaleLog().domain([LOW, HIGH]).range([PAD, width - padRight]).clamp(true)
  const waters = page.waters.filter((w) => w.ec25_uS_cm !== null)
  const floats = waters.map((w) => ({ key: String(w.id), x: x(w.ec25_uS_cm ?? LOW), width: Math.max(w.name.length + 5, 13) * 7.4 }))
  const narrow = width < 560 // names stand beside their float there, each higher than the stems to its right
  const above = narrow ? placeBeside(floats, width) : placeCentred(floats, width)
  const alike = sameLimit(page.groups, width < 560 ? 1 : 3)
  const below = placeBeside(alike.map((g) => ({ key: g.names, x: x(g.limit), width: (g.names.length + 5) * 6.6 })), width)
  const aboveRows = Math.max(1, ...above.map((a) => a.row + 1))
  const belowRows = Math.max(1, ...below.map((b) => b.row + 1))
  const surface = aboveRows * ROW + 34
  const height = surface + 46 + belowRows * 22
  const ticks = width < 520 ? TICKS.filter((t) => [5, 20, 100, 500, 2000].includes(t)) : TICKS
  return (
    <Box ref={ref} bg="bg.panel" borderWidth="1px" borderRadius="lg" py="3" overflow="hidden">
      <Box asChild color="fg" display="block">
        <svg width={width} height={height} role="group" aria-label="Waters by conductivity, above the most each kind of plant may drink">
          {above.map((a) => {
            const w = waters.find((v) => String(v.id) === a.key)
            if (!w || w.ec25_uS_cm === null) return null
            const y = surface - 36 - a.row * ROW
            const half = w.half_width_uS_cm ?? 0
            const label = narrow ? { x: a.right ? a.x - 18 : a.x + 18, textAnchor: a.right ? ("end" as const) : ("start" as const) } : { x: a.left + a.width / 2, textAnchor: "middle" as const }
            const line = narrow ? y + 4 : y - 20
            const from = x(Math.max(w.ec25_uS_cm - half, LOW))
            return (
              <g key={a.key} role="button" tabIndex={0} aria-pressed={w.id === chosen} aria-description={`µS/cm at 25 °C; ${w.amounts}`} style={{ cursor: "pointer" }} onClick={() => onChoose(w.id)} onKeyDown={(e) => (e.key === "Enter" || e.key === " ") && onChoose(w.id)}>
                <line x1={a.x} x2={a.x} y1={y + 12} y2={surface} stroke="currentColor" strokeWidth="1.4" />
                <path d={`M${a.x - 13} ${y} h26 l-4 16 h-18 z`} fill={saltColour(w.ec25_uS_cm)} stroke="currentColor" strokeWidth={w.id === chosen ? 2.6 : 1.4} />
                <line x1={from} x2={Math.max(from + 3, x(w.ec25_uS_cm + half))} y1={surface - 2} y2={surface - 2} stroke="currentColor" strokeWidth="4" />
                <text style={{ fontSize: 13, fontWeight: 600 }} {...label} y={line} fill="currentColor">{w.name} {figure(Math.round(w.ec25_uS_cm), 6)}</text>
                <text style={{ fontSize: 11.5 }} {...label} y={line + 14} fill="var(--chakra-colors-fg-muted)">{w.age_days === null ? "" : ago(w.age_days)}</text>
              </g>
            )
          })}
          <foreignObject x={PAD} y={surface} width={Math.max(0, width - PAD - padRight)} height="12">
            <div style={{ height: 12, background: `linear-gradient(90deg, ${saltGradient(LOW, HIGH)})` }} />
          </foreignObject>
          {ticks.map((t) => <text style={{ fontSize: 11.5 }} key={t} x={x(t)} y={surface + 27} textAnchor="middle" fill="var(--chakra-colors-fg-muted)">{figure(t, 6)}</text>)}
          {below.map((b) => {
            const g = alike.find((v) => v.names === b.key)
            if (!g) return null
            const y = surface + 50 + b.row * 22
            return (
              <g key={b.key}>
                <line x1={b.x} x2={b.x} y1={surface + 32} y2={y - 5} stroke="var(--chakra-colors-border-strong)" strokeWidth="1" />
                <path d={`M${b.x} ${y - 7} q5 7 0 14 q-5 -7 0 -14`} fill="var(--chakra-colors-leaf)" stroke="var(--chakra-colors-leaf-edge)" />
                <text style={{ fontSize: 12.5 }} x={b.right ? b.x - 9 : b.x + 9} y={y + 4} textAnchor={b.right ? "end" : "start"} fill="currentColor">
                  {g.names} <tspan fill="var(--chakra-colors-fg-muted)">{g.limit}</tspan>
                </text>
              </g>
            )
          })}
        </svg>
      </Box>
    </Box>
  )
}

/** Kinds with one limit share a label, a few names at a time. */
function sameLimit(groups: Schemas["GroupOut"][], most: number): { limit: number; names: string }[] {
  const limits = [...new Set(groups.map((g) => g.ec_max_uS_cm))]
  return limits.flatMap((limit) => {
    const names = groups.filter((g) => g.ec_max_uS_cm === limit).map((g) => g.short)
    return Array.from({ length: Math.ceil(names.length / most) }, (_, i) => ({ limit, names: names.slice(i * most, (i + 1) * most).join(", ") }))
  })
}
