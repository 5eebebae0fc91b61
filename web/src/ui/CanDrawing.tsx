import { Box } from "@chakra-ui/react"
import { onSalt, saltColour } from "../app/ramp"

/** A can filled to its share, at its depth of colour. */
export function CanDrawing({
  ec,
  share,
  letter,
  size = 52,
}: {
  ec: number
  share: number
  letter?: string
  size?: number
}) {
  const top = 6 + (1 - Math.min(Math.max(share, 0.18), 1)) * 70
  const inset = ((top - 4) / 86) * 5
  return (
    <Box asChild color="fg" flexShrink="0">
      <svg width={size} height={size * 1.75} viewBox="0 0 56 98" aria-hidden>
        <path d={`M${4 + inset} ${top} H${52 - inset} L47 90 H9 Z`} fill={saltColour(ec)} />
        <path
          d="M3 4 H53 L47 92 H9 Z"
          fill="none"
          stroke="currentColor"
          strokeWidth="2.2"
          strokeLinejoin="round"
        />
        {letter && (
          <text
            style={{ fontSize: 17, fontWeight: 700 }}
            x="28"
            y="82" // within the water, however little there is
            textAnchor="middle"
            fill={onSalt(ec)}
          >
            {letter}
          </text>
        )}
      </svg>
    </Box>
  )
}
