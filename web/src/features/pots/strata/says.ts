// What the strata say on one day, in words: the same for the pointer, the keys and the screen reader.
import type { Schemas } from "../../../api/client"
import { amount, pourVolume, span, numberIn, spanIn } from "../../../ui/format"

export function says(
  page: Schemas["PotPage"],
  on: string,
  water: Schemas["ReservoirPage"] | null = null,
): string {
  const level = water?.now.result.points.findLast((p) => p.on <= on)
  const phase = page.phases.findLast((p) => p.since <= on)
  const reading = page.root_zone.history.findLast((p) => p.on <= on)
  const pour = page.pours.find((p) => p.on === on)
  const runoff = page.root_zone.observations.find((o) => o.on === on)
  const look = page.looks.find((l) => l.on === on)
  return [
    phase?.phase,
    pour &&
      [
        `${pour.job}:`,
        pour.volume_L === null ? "volume not measured" : pourVolume(pour.volume_L * 1000),
        pour.ec_uS_cm === null ? "at EC not known" : `at ${amount(pour.ec_uS_cm, "µS/cm")}`,
      ].join(" "),
    reading &&
      `reading about ${amount(reading.reading, "µS/cm")} (${span(reading.low, reading.high, "µS/cm")})`,
    level &&
      water &&
      (water.kind === "tray"
        ? `tray ${amount(level.level_L, "L")}`
        : [
            `reservoir ${amount(level.level_L, "L")} at ${amount(level.ec_uS_cm, "µS/cm")}`,
            `(${spanIn(level.low_uS_cm, level.high_uS_cm, "µS/cm")})`,
          ].join(" ")),
    runoff && `runoff measured ${numberIn(runoff.runoff_ec, "µS/cm")}`,
    look &&
      (look.newest_leaf_mm !== null
        ? `newest leaf ${amount(look.newest_leaf_mm, "mm")}`
        : look.leaves_count !== null
          ? `${look.leaves_count} leaves`
          : "looked"),
    ...page.events.filter((e) => e.on === on).map((e) => e.what),
    look && look.marks.length > 0 && `marks: ${look.marks.join(", ")}`,
  ]
    .filter(Boolean)
    .join(" · ")
}
