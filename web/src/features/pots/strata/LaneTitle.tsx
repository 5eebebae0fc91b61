import type { ScaleTime } from "d3-scale"
import type { Schemas } from "../../../api/client"
import { type Window } from "./scales"

export type LaneProps = {
  page: Schemas["PotPage"]
  x: ScaleTime<number, number>
  w: Window
  gutter: number
  width: number
  top: number
  height: number
}

const muted = "var(--chakra-colors-fg-muted)"

/** Name of a lane, in the gutter or, on narrow screens, inside. */
export function LaneTitle({
  gutter,
  top,
  title,
  unit,
}: {
  gutter: number
  top: number
  title: string
  unit?: string
}) {
  return gutter > 40 ? (
    <>
      <text style={{ fontSize: 13, fontWeight: 600 }} x="14" y={top + 20} fill="currentColor">
        {title}
      </text>
      {unit && (
        <text style={{ fontSize: 11 }} x="14" y={top + 37} fill={muted}>
          {unit}
        </text>
      )}
    </>
  ) : (
    <text style={{ fontSize: 11, fontWeight: 600 }} x="8" y={top + 13} fill="currentColor">
      {title}
      {unit ? `, ${unit}` : ""}
    </text>
  )
}
