import { numberIn } from "../ui/format"
import { amount } from "./format"
import type { Schemas } from "../api/client"
import { Rail } from "./Rail"

/** A pot's predicted reading on the rail: readings compared with readings. */
export function PotRail({ row, width }: { row: Schemas["PotRow"]; width?: number }) {
  const reading = row.reading_uS_cm === null ? "not known" : numberIn(row.reading_uS_cm, "µS/cm")
  const says = [
    `${row.code}: predicted reading ${reading}`,
    `comfortable ${row.ideal_low_uS_cm} to ${row.ideal_high_uS_cm}`,
    `ceiling ${amount(row.ceiling_uS_cm, "µS/cm")}`,
  ].join(", ")
  return (
    <Rail
      label={says}
      band={[row.ideal_low_uS_cm, row.ideal_high_uS_cm]}
      ceiling={row.ceiling_uS_cm}
      value={row.reading_uS_cm}
      low={row.reading_low_uS_cm}
      high={row.reading_high_uS_cm}
      measured={row.measured_uS_cm}
      width={width}
    />
  )
}
