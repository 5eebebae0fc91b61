import type { ScaleLogarithmic, ScaleTime } from "d3-scale"
import type { Schemas } from "../../../api/client"
import { amount, numberIn } from "../../../ui/format"
import { asDate } from "./scales"

type Seen = Schemas["PotPage"]["root_zone"]["observations"]

/** Runoffs that were read, turned into readings. */
export function Runoffs({
  seen,
  x,
  y,
}: {
  seen: Seen
  x: ScaleTime<number, number>
  y: ScaleLogarithmic<number, number>
}) {
  return seen.map((o) => (
    <rect
      key={`${o.on}${o.runoff_ec}`}
      x="-4.3"
      y="-4.3"
      width="8.6"
      height="8.6"
      transform={`translate(${x(asDate(o.on))} ${y(o.equivalent_reading)}) rotate(45)`}
      fill="var(--chakra-colors-bg-panel)"
      stroke="currentColor"
      strokeWidth="1.5"
    >
      <title>
        {[
          `runoff ${numberIn(o.runoff_ec, "µS/cm")}`,
          `stands for a reading of ${amount(o.equivalent_reading, "µS/cm")}`,
        ].join(", ")}
      </title>
    </rect>
  ))
}
