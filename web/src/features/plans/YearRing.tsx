import { Box } from "@chakra-ui/react"

const MONTHS = "JFMAMJJASOND".split("")
const DAYS = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334]
const R = 62

/** Where a day of the year (MM-DD) stands on the ring: midsummer of the north on top. */
const angle = (day: string) => {
  const n = (DAYS[Number(day.slice(0, 2)) - 1] ?? 0) + Number(day.slice(3)) - 1
  return ((n - 172) / 365) * 2 * Math.PI - Math.PI / 2
}
const at = (a: number, r: number) => [100 + r * Math.cos(a), 88 + r * Math.sin(a)] as const

/** The year as a ring, the days fed as a band. */
export function YearRing({ from, to }: { from: string; to: string }) {
  const whole = !from || !to
  const a = whole ? 0 : angle(from)
  let b = whole ? 0 : angle(to)
  if (b < a) b += 2 * Math.PI
  const [x1, y1] = at(a, R)
  const [x2, y2] = at(b, R)
  const label = whole ? "Fed all year" : `Fed from ${from} to ${to}, month and day`
  return (
    <Box asChild display="block" w="100%" maxW="170px" mx="auto" color="fg">
      <svg viewBox="0 0 200 176" role="img" aria-label={label}>
        <circle
          cx="100"
          cy="88"
          r={R}
          fill="none"
          stroke={whole ? "var(--chakra-colors-leaf)" : "var(--chakra-colors-border)"}
          strokeWidth={whole ? 18 : 4}
        />
        {!whole && (
          <path
            d={`M ${x1} ${y1} A ${R} ${R} 0 ${b - a > Math.PI ? 1 : 0} 1 ${x2} ${y2}`}
            fill="none"
            stroke="var(--chakra-colors-leaf)"
            strokeWidth="18"
          />
        )}
        {MONTHS.map((m, i) => {
          const [x, y] = at(angle(`${String(i + 1).padStart(2, "0")}-15`), R + 19)
          return (
            <text key={i} x={x} y={y + 4} textAnchor="middle" fontSize="11" fill="currentColor">
              {m}
            </text>
          )
        })}
      </svg>
    </Box>
  )
}
