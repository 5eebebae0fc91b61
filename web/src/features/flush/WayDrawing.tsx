import { Box } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"

const WIDTH = 300

/** Water of a way as slugs along its time: wide ones are much water, gaps are soaks. */
export function WayDrawing({ way, pause }: { way: Schemas["FlushWay"]; pause: number }) {
  const n = Math.max(1, Math.min(way.count, 12))
  const waits = way.days > 1 ? 40 : Math.min(pause, 90) / 3
  const whole = n * 22 + (n - 1) * waits
  const scale = Math.min(1, (WIDTH - 4) / whole)
  const tall = Math.max(6, Math.min(20, (way.litres / n) * 14))
  return (
    <Box asChild w="100%" maxW={`${WIDTH}px`} color="fg" display="block">
      <svg viewBox={`0 0 ${WIDTH} 26`} aria-hidden="true">
        <line x1="2" x2={WIDTH - 2} y1="23" y2="23" stroke="currentColor" opacity="0.35" />
        {Array.from({ length: n }, (_, i) => (
          <rect
            key={i}
            x={2 + i * (22 + waits) * scale}
            y={23 - tall}
            width={22 * scale}
            height={tall}
            rx="2"
            fill={way.way === "repot" ? "none" : "var(--chakra-colors-comfort)"}
            stroke="currentColor"
            strokeWidth="1.2"
            strokeDasharray={way.way === "repot" ? "3 2" : undefined}
          />
        ))}
      </svg>
    </Box>
  )
}
