import { Box } from "@chakra-ui/react"
import type { Schemas } from "../api/client"
import { figure } from "./format"

/** What the pen sent, drawn small. */
export function PenTrace({ samples }: { samples: Schemas["TraceIn"][] }) {
  const last = samples.at(-1)
  const top = Math.max(...samples.map((s) => s.ec_uS_cm), 1)
  const line = samples
    .map((s, i) => {
      const x = (220 * s.t_s) / Math.max(last?.t_s ?? 1, 4)
      const y = 34 - (30 * s.ec_uS_cm) / top
      return `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`
    })
    .join("")
  return (
    <Box asChild color="fg" display="block" flex="0 1 224px" minW="0">
      <svg
        viewBox="0 0 224 38"
        height="38"
        preserveAspectRatio="none"
        role="img"
        aria-label={`${samples.length} samples in ${figure(last?.t_s ?? 0)} seconds`}
      >
        <line x1="0" x2="224" y1="35" y2="35" stroke="var(--chakra-colors-border)" />
        <path d={line} fill="none" stroke="currentColor" strokeWidth="1.5" />
      </svg>
    </Box>
  )
}
