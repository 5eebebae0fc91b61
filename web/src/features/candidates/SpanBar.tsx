import { numberIn, type Unit } from "../../ui/format"
import { Box } from "@chakra-ui/react"

type Props = {
  label: string
  from: number
  to: number
  asks: readonly number[]
  has?: readonly number[] | null
  unit?: Unit
}

/** What a kind asks, drawn as a frame, and what the home has, as a bar or a point, on one axis. */
export function SpanBar({ label, from, to, asks, has, unit }: Props) {
  const W = 260
  const x = (v: number) => 12 + ((Math.min(Math.max(v, from), to) - from) / (to - from)) * (W - 24)
  const [a = from, b = to] = asks
  const ticks = Array.from({ length: 5 }, (_, i) => from + (i * (to - from)) / 4)
  return (
    <Box asChild display="block" w="100%" maxW="340px" color="fg">
      <svg viewBox={`0 0 ${W} 40`} role="img" aria-label={label}>
        <line x1={12} x2={W - 12} y1={14} y2={14} stroke="currentColor" strokeOpacity="0.35" />
        <rect
          x={x(a)}
          y="6"
          width={Math.max(4, x(b) - x(a))}
          height="16"
          rx="3"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.4"
        />
        {has && (
          <rect
            x={x(has[0] ?? a) - 2}
            y="11"
            width={Math.max(5, x(has[1] ?? a) - x(has[0] ?? a) + 4)}
            height="6"
            rx="3"
            fill="currentColor"
          />
        )}
        {ticks.map((t) => (
          <text key={t} x={x(t)} y="36" fontSize="8.5" textAnchor="middle" fill="currentColor">
            {unit ? numberIn(t, unit) : t}
          </text>
        ))}
      </svg>
    </Box>
  )
}
