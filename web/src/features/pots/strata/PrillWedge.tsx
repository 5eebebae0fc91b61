import type { Schemas } from "../../../api/client"
import { day } from "../../../ui/format"
import { asDate } from "./scales"
import type { LaneProps } from "./LaneTitle"

const THICK = 9

/** Prills as a wedge that thins from the day they were given to the day they are spent. */
export function PrillWedge({
  prills,
  page,
  x,
  w,
  top,
}: LaneProps & { prills: NonNullable<Schemas["PotPage"]["prills"]> }) {
  const from = x(w.from)
  const start = x(asDate(prills.given_on))
  const end = x(asDate(prills.until))
  const right = x.range()[1] ?? end
  if (end <= from || start >= right) return null
  const thick = (at: number) => (THICK * (end - at)) / Math.max(1, end - start)
  const a = Math.max(from, start)
  const b = Math.min(right, end)
  const y = top + 6
  const left = Math.round(100 * (1 - prills.share_out))
  return (
    <g>
      <path
        d={`M${a} ${y}H${b}V${y + thick(b)}L${a} ${y + thick(a)}Z`}
        fill="var(--chakra-colors-leaf)"
        stroke="var(--chakra-colors-leaf-edge)"
      />
      <text style={{ fontSize: 11 }} x={a + 4} y={y + THICK + 12} fill="currentColor">
        prills, {left} % left, spent about {day(prills.until, page.today)}
      </text>
    </g>
  )
}
