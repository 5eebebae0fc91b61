import { monthTick } from "../../ui/format"
import { Box, Grid } from "@chakra-ui/react"
import { scaleTime } from "d3-scale"

const WIDTH = 420

/** Months over the bands of the year ahead. */
export function YearAxis({ today }: { today: string }) {
  const from = new Date(`${today}T00:00:00Z`)
  const to = new Date(from)
  to.setUTCFullYear(to.getUTCFullYear() + 1)
  const x = scaleTime()
    .domain([from, to])
    .range([2, WIDTH - 2])
  return (
    <Grid
      display={{ base: "none", xl: "grid" }}
      templateColumns="74px 1fr 62px minmax(0,1.1fr)"
      gap="3"
      px="2"
      aria-hidden="true"
    >
      <Box gridColumn="4" asChild w="100%" color="fg.muted">
        <svg viewBox={`0 0 ${WIDTH} 16`}>
          {x.ticks(6).map((t) => (
            <text
              key={+t}
              x={x(t)}
              y="12"
              textAnchor="middle"
              style={{ fontSize: 12 }}
              fill="currentColor"
            >
              {monthTick(t)}
            </text>
          ))}
        </svg>
      </Box>
    </Grid>
  )
}
