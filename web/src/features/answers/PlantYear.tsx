import { Box } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { amount, day, figure } from "../../ui/format"

export type Year = Schemas["PlantYear"]

const times = (n: number, word: string) => `${n} ${word}${n === 1 ? "" : "s"}`

/** How often, in words. */
export const often = (n: number) => (n === 0 ? "never" : n === 1 ? "once" : `${n} times`)

/** What went in, in words: zero is told as zero, what was not measured as such. */
export const given = ({ sum, flushes, last_flush_on }: Year) =>
  [
    `watered on ${times(sum.waterings, "day")}`,
    sum.feeds === 0
      ? "never fed"
      : `fed ${often(sum.feeds)}, ${figure(sum.nitrogen_mg)} mg of nitrogen` +
        (sum.unknown > 0 ? ` and ${times(sum.unknown, "feed")} of unknown strength` : ""),
    flushes === 0
      ? "never flushed"
      : `flushed ${often(flushes)}, last on ${last_flush_on ? day(last_flush_on) : ""}`,
  ].join("; ")

export const became = ({ sum, flowers }: Year) =>
  [
    sum.leaves === 0
      ? "no new leaf seen"
      : times(sum.leaves, "new leaf").replace("leafs", "leaves"),
    flowers == null ? "flowers not counted" : times(flowers, "flower"),
    sum.height_cm == null ? null : `${amount(sum.height_cm, "cm")} high`,
  ]
    .filter(Boolean)
    .join("; ")

/** What changed, each with its day, and what the log could say of it. */
export function Changed({ year }: { year: Year }) {
  return (
    <Box as="ul" listStyleType="none">
      {year.told.map((t) => (
        <li key={`${t.on}${t.words}`}>
          {day(t.on, "")}
          {t.at_place && ", at its place"}: {t.words}. {t.sentence}
        </li>
      ))}
      {year.told.length === 0 && <li>Nothing was changed.</li>}
    </Box>
  )
}
