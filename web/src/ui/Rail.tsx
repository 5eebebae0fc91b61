import { Box } from "@chakra-ui/react"
import { scaleLog } from "d3-scale"
import { useId } from "react"
import { saltColour } from "../app/ramp"

export const RAIL_LOW = 10
export const RAIL_HIGH = 4000

type Props = {
  label: string
  band?: [number, number]
  ceiling?: number | null
  value?: number | null
  low?: number | null
  high?: number | null
  measured?: number | null
  width?: number
}

/** One logarithmic axis for any water or pot: comfortable, ceiling, prediction with range, measured. */
export function Rail({ label, band, ceiling, value, low, high, measured, width = 250 }: Props) {
  const id = useId()
  const x = scaleLog()
    .domain([RAIL_LOW, RAIL_HIGH])
    .range([4, width - 4])
    .clamp(true)
  const stops = x.ticks(12)
  return (
    <Box asChild display="block" w="100%" maxW={`${width * 1.6}px`} color="fg">
      <svg viewBox={`0 0 ${width} 26`} role="img" aria-label={label}>
        <defs>
          <linearGradient id={id}>
            {stops.map((s) => (
              <stop key={s} offset={x(s) / width} stopColor={saltColour(s)} />
            ))}
          </linearGradient>
        </defs>
        <rect x="0" y="11" width={width} height="4" rx="2" fill={`url(#${id})`} />
        {band && (
          <rect
            x={x(Math.max(band[0], RAIL_LOW))}
            y="4.5"
            width={Math.max(4, x(band[1]) - x(Math.max(band[0], RAIL_LOW)))}
            height="17"
            rx="3"
            fill="none"
            stroke="currentColor"
            strokeWidth="1.4"
          />
        )}
        {low != null && high != null && (
          <rect
            x={x(low)}
            y="10"
            width={Math.max(3, x(high) - x(low))}
            height="6"
            rx="3"
            fill={saltColour(value ?? low)}
            stroke="currentColor"
            strokeWidth="0.7"
            opacity="0.85"
          />
        )}
        {value != null && (
          <circle
            cx={x(value)}
            cy="13"
            r="5.2"
            fill={saltColour(value)}
            stroke="currentColor"
            strokeWidth="1"
          />
        )}
        {ceiling != null && (
          <line
            x1={x(ceiling)}
            x2={x(ceiling)}
            y1="2"
            y2="24"
            stroke="currentColor"
            strokeWidth="2.6"
          />
        )}
        {measured != null && (
          <rect
            x="-4.2"
            y="-4.2"
            width="8.4"
            height="8.4"
            transform={`translate(${x(measured)} 13) rotate(45)`}
            fill="var(--chakra-colors-bg-panel)"
            stroke="currentColor"
            strokeWidth="1.5"
          />
        )}
      </svg>
    </Box>
  )
}
