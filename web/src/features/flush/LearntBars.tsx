import { Box, Text } from "@chakra-ui/react"
import { scaleLog } from "d3-scale"
import type { Schemas } from "../../api/client"
import { capital, figure } from "../../ui/format"

const WIDTH = 300

/** Each parameter: by default hollow, as learnt filled; a shorter bar is a better known pot. */
export function LearntBars({ values }: { values: readonly Schemas["LearntValue"][] }) {
  return (
    <>
      {values.map((v) => {
        const x = scaleLog()
          .domain([Math.min(v.default_low, v.low) * 0.9, Math.max(v.default_high, v.high) * 1.1])
          .range([4, WIDTH - 4])
        return (
          <Box key={v.id} mb="2">
            <Text fontSize="sm">
              {capital(v.name)}: <b>{figure(v.learnt, 2)}</b> {v.unit} ({figure(v.low, 2)} to{" "}
              {figure(v.high, 2)})
            </Text>
            <Box asChild w="100%" maxW={`${WIDTH}px`} color="fg" display="block">
              <svg viewBox={`0 0 ${WIDTH} 16`} aria-hidden="true">
                <rect
                  x={x(v.default_low)}
                  y="3"
                  width={x(v.default_high) - x(v.default_low)}
                  height="10"
                  rx="3"
                  fill="none"
                  stroke="currentColor"
                  opacity="0.5"
                />
                <rect
                  x={x(v.low)}
                  y="5.5"
                  width={Math.max(2, x(v.high) - x(v.low))}
                  height="5"
                  rx="2"
                  fill="currentColor"
                  opacity="0.75"
                />
                <line x1={x(v.default)} x2={x(v.default)} y1="1" y2="15" stroke="currentColor" />
              </svg>
            </Box>
            <Text fontSize="xs" color="fg.muted">
              {v.sentence}
            </Text>
          </Box>
        )
      })}
    </>
  )
}
