import type { PlantLine } from "./queries"

/** Feeds as ticks and flushes as drops beneath a line. */
export function PouredTicks({
  plant,
  inside,
  at,
  y,
}: {
  plant: PlantLine
  inside: (iso: string) => boolean
  at: (iso: string) => number
  y: number
}) {
  return (
    <>
      {plant.fed.filter(inside).map((on) => (
        <line
          key={on}
          x1={at(on)}
          x2={at(on)}
          y1={y}
          y2={y + 6}
          stroke="currentColor"
          opacity="0.55"
        />
      ))}
      {plant.flushed.filter(inside).map((on) => (
        <path
          key={on}
          d={`M${at(on)} ${y - 1}l3 5a3.6 3.6 0 1 1 -6 0z`}
          fill="var(--chakra-colors-bg-panel)"
          stroke="currentColor"
        />
      ))}
    </>
  )
}
