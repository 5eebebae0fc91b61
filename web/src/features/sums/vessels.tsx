// Vessels of the drawing of the way.
import { onSalt, saltColour } from "../../app/ramp"

type VesselProps = {
  x: number
  y: number
  w: number
  h: number
  ec: number
  words: string
  open?: boolean
}

/** A vessel at its depth of colour; hatched where nobody read it. */
export function Vessel({ x, y, w, h, ec, words, open }: VesselProps) {
  const slope = w * 0.1
  const outline = `M${x} ${y} h${w} l${-slope} ${h} h${2 * slope - w} Z`
  const level = [
    `M${x + slope * 0.25} ${y + h * 0.25} h${w - slope * 0.5}`,
    `l${-slope * 0.75} ${h * 0.75} h${2 * slope - w} Z`,
  ].join(" ")
  return (
    <g>
      <path d={level} fill={saltColour(ec)} opacity={open ? 0.55 : 1} />
      <path
        d={outline}
        fill="none"
        stroke="currentColor"
        strokeWidth="2"
        strokeDasharray={open ? "5 4" : undefined}
      />
      <text
        x={x + w / 2}
        y={y + h * 0.68}
        textAnchor="middle"
        style={{ fontSize: 14, fontWeight: 600 }}
        fill={open ? "currentColor" : onSalt(ec)}
      >
        {words}
      </text>
    </g>
  )
}

/** Water on its way from one vessel into the next. */
export const Flow = ({
  from,
  to,
  ec,
}: {
  from: [number, number]
  to: [number, number]
  ec: number
}) => (
  <path
    d={`M${from[0]} ${from[1]} C${from[0] + 40} ${from[1]} ${to[0] - 40} ${from[1]} ${to[0]} ${to[1]}`}
    fill="none"
    stroke={saltColour(ec)}
    strokeWidth="9"
    strokeLinecap="round"
  />
)

/** What stands under a vessel. */
export const Label = ({ x, words }: { x: number; words: string }) => (
  <text
    x={x}
    y="152"
    textAnchor="middle"
    style={{ fontSize: 14 }}
    fill="var(--chakra-colors-fg-muted)"
  >
    {words}
  </text>
)
