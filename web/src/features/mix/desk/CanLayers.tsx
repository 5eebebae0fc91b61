import { amount } from "../../../ui/format"
import { Box } from "@chakra-ui/react"
import { onSalt, saltColour } from "../../../app/ramp"

export type Layer = { name: string; line: string; share: number; ec: number; thin?: boolean }

const TOP = 14
const BOTTOM = 214
const half = (y: number) => 52 + ((BOTTOM - y) / (BOTTOM - TOP)) * 16 // the can widens upwards

/** The can, filled from below: water at its depth of colour, and what is poured into it, each named beside. */
export function CanLayers({
  layers,
  volume,
  ec,
  label,
}: {
  layers: Layer[]
  volume: string
  ec: number
  label: string
}) {
  const full = 150
  const places = layers.map((l) => Math.max(l.share * full, l.thin ? 9 : 14))
  const bases = places.map((_, i) => BOTTOM - places.slice(0, i).reduce((a, b) => a + b, 0))
  // names keep apart from each other: a thin layer pushes the next name up
  const at = layers
    .map((_, i) => (bases[i] ?? BOTTOM) - (places[i] ?? 0) / 2)
    .reduce<number[]>((kept, y) => [...kept, Math.min(y, (kept.at(-1) ?? 999) - 27)], [])
  return (
    <Box asChild color="fg" w="100%" maxW="430px" mx="auto" display="block">
      <svg viewBox="0 0 330 224" role="img" aria-label={label}>
        {layers.map((l, i) => {
          const low = bases[i] ?? BOTTOM
          const high = low - (places[i] ?? 0)
          const a = half(low)
          const b = half(high)
          const middle = (low + high) / 2
          const name = at[i] ?? middle
          return (
            <g key={l.name}>
              <path
                d={`M${80 - a} ${low} L${80 + a} ${low} L${80 + b} ${high} L${80 - b} ${high} Z`}
                fill={saltColour(l.thin ? 2400 : ec)}
              />
              <line
                x1={80 + half(middle) + 4}
                x2="168"
                y1={middle}
                y2={name}
                stroke="currentColor"
                strokeWidth="0.8"
              />
              <text
                x="173"
                y={name - 1}
                style={{ fontSize: 11, fontWeight: 600 }}
                fill="currentColor"
              >
                {l.name.length > 27 ? `${l.name.slice(0, 26)}…` : l.name}
              </text>
              <text
                x="173"
                y={name + 12}
                style={{ fontSize: 10.5 }}
                fill="currentColor"
                opacity="0.75"
              >
                {l.line}
              </text>
            </g>
          )
        })}
        <path
          d={[
            `M${80 - half(TOP)} ${TOP} L${80 - half(BOTTOM)} ${BOTTOM}`,
            `H${80 + half(BOTTOM)} L${80 + half(TOP)} ${TOP} Z`,
          ].join(" ")}
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
          strokeLinejoin="round"
        />
        <text
          x="80"
          y="160"
          textAnchor="middle"
          style={{ fontSize: 22, fontWeight: 650 }}
          fill={onSalt(ec)}
        >
          {volume}
        </text>
        <text x="80" y="178" textAnchor="middle" style={{ fontSize: 11.5 }} fill={onSalt(ec)}>
          {amount(ec, "µS/cm")}
        </text>
      </svg>
    </Box>
  )
}
