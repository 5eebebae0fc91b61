import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { amount, capital, day } from "../../ui/format"

type History = Schemas["OrganHistory"]

const WIDE = 420
const TALL = 56
const FOOT = 44
const DAY_MS = 86_400_000
const time = (iso: string) => Date.parse(iso) / DAY_MS

/** One organ over its looks: a stem for each, as tall as its share, or its count among the others. */
export function OrganLine({
  organ,
  seen,
  today,
}: {
  organ: string
  seen: History[]
  today: string
}) {
  const first = seen[0]
  const last = seen.at(-1)
  if (!first || !last) return null
  const span = Math.max(1, time(today) - time(first.on))
  const x = (iso: string) => 12 + ((time(iso) - time(first.on)) / span) * (WIDE - 24)
  const most = Math.max(1, ...seen.map((o) => o.seen.count ?? 0))
  const high = (o: History) =>
    o.share ?? (o.seen.count === null || o.seen.count === undefined ? null : o.seen.count / most)
  return (
    <>
      <Text fontSize="sm">
        {capital(organ)}, {day(last.on, today)}: {words(last)}
      </Text>
      <Box asChild>
        <svg
          viewBox={`0 0 ${WIDE} ${TALL}`}
          width="100%"
          role="img"
          aria-label={`${organ}: ${seen.map((o) => `${day(o.on)} ${words(o)}`).join("; ")}`}
          fill="none"
        >
          <line x1="8" x2={WIDE - 8} y1={FOOT} y2={FOOT} stroke="currentColor" opacity="0.4" />
          {seen.map((o, i) => {
            const h = high(o)
            return h === null ? (
              <text
                key={i}
                x={x(o.on)}
                y={FOOT - 6}
                textAnchor="middle"
                fill="currentColor"
                style={{ fontSize: 13 }}
              >
                ?
              </text>
            ) : (
              <g key={i} stroke="var(--chakra-colors-leaf-edge)">
                <line x1={x(o.on)} x2={x(o.on)} y1={FOOT} y2={FOOT - 34 * h} strokeWidth="2" />
                <circle cx={x(o.on)} cy={FOOT - 34 * h} r="4.5" fill="var(--chakra-colors-leaf)" />
              </g>
            )
          })}
        </svg>
      </Box>
    </>
  )
}

function words({ seen }: History): string {
  if (seen.told !== "seen") return seen.told ?? "not told"
  const figures = [
    seen.count != null && (seen.of != null ? `${seen.count} of ${seen.of}` : `${seen.count}`),
    seen.percent != null && `${seen.percent} %`,
    seen.mm != null && `${amount(seen.mm, "mm")}`,
    ...Object.entries(seen.words ?? {}).map(([k, v]) => `${k} ${v}`),
  ]
  return figures.filter(Boolean).join(", ") || "seen, not counted"
}
