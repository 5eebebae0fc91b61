import { Box, Text } from "@chakra-ui/react"
import { GRADES } from "./words"

const WIDE = 300
const STEP = WIDE / GRADES.length

/** Five words as steps going up; the one it has come to stands out. */
export function Grade({ grade }: { grade: string }) {
  const at = GRADES.indexOf(grade as (typeof GRADES)[number])
  return (
    <Box maxW="360px">
      <svg
        viewBox={`0 0 ${WIDE} 62`}
        width="100%"
        role="img"
        aria-label={`How sure: ${grade}. Steps: ${GRADES.join(", ")}`}
        fill="currentColor"
      >
        {GRADES.map((g, i) => (
          <g key={g}>
            <rect
              x={i * STEP}
              y={30 - i * 6 - (i === at ? 2 : 0)}
              width={STEP - 4}
              height={i === at ? 5 : 2}
              opacity={i === at ? 1 : 0.35}
            />
            <text
              x={i * STEP}
              y={48 - i * 6}
              style={{ fontSize: 12, fontWeight: i === at ? 700 : 400 }}
              opacity={i === at ? 1 : 0.75}
            >
              {g}
            </text>
          </g>
        ))}
      </svg>
    </Box>
  )
}

/** The same in a line, for lists. */
export function GradeWord({ grade }: { grade: string }) {
  return (
    <Text as="span" fontWeight="semibold" whiteSpace="nowrap">
      {grade}
    </Text>
  )
}
