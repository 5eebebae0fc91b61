import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { day, figure } from "../../ui/format"

const W = 720
const WEEKS = 12
const dayAt = (iso: string, today: string) => (Date.parse(iso) - Date.parse(today)) / 86_400_000

type LaneProps = { today: string; ahead: Schemas["PlanOnPot"]; name: string; line: string }

/** Twelve weeks of a pot: a bar for a feed, a ring for plain water, grey where the feed is held. */
export function Lane({ today, ahead, name, line }: LaneProps) {
  const x = (iso: string) => 6 + (dayAt(iso, today) / (7 * WEEKS)) * (W - 12)
  const told = [
    `${ahead.feeds} ${ahead.feeds === 1 ? "feed" : "feeds"}`,
    ahead.next_feed_on ? `first on ${day(ahead.next_feed_on, today)}` : "",
    ahead.week_mg != null ? `${figure(ahead.week_mg)} mg N a week` : "",
    ahead.week_mg != null && ahead.kind_week_mg
      ? `its kind takes ${figure(ahead.kind_week_mg[0])} to ${figure(ahead.kind_week_mg[1])}`
      : "",
    ahead.held,
  ].filter(Boolean)
  return (
    <Box borderTopWidth="1px" py="2">
      <Text>
        <b>{name}</b>{" "}
        <Text as="span" fontSize="sm" color="fg.muted">
          {line}
        </Text>
      </Text>
      <Box asChild display="block" w="100%" color="fg">
        <svg viewBox={`0 0 ${W} 40`} role="img" aria-label={`${name}: ${told.join(", ")}`}>
          <line x1="6" x2={W - 6} y1="32" y2="32" stroke="currentColor" strokeWidth="0.8" />
          {ahead.days.map((d, i) => {
            const at = x(d.on)
            if (d.job === "feed")
              return (
                <rect
                  key={i}
                  x={at - 4}
                  y={32 - 26 * d.share}
                  width="8"
                  height={26 * d.share}
                  fill="var(--chakra-colors-leaf-edge)"
                />
              )
            if (d.job === "leaf spray")
              return <path key={i} d={`M${at} 4 l5 8 h-10 Z`} fill="var(--chakra-colors-leaf)" />
            if (d.job === "held")
              return (
                <rect
                  key={i}
                  x={at - 4}
                  y="22"
                  width="8"
                  height="10"
                  fill="var(--chakra-colors-border)"
                />
              )
            return (
              <circle
                key={i}
                cx={at}
                cy="32"
                r="3"
                fill="var(--chakra-colors-bg-panel)"
                stroke="currentColor"
              />
            )
          })}
        </svg>
      </Box>
      <Text fontSize="sm">{told.join(" · ")}</Text>
    </Box>
  )
}
