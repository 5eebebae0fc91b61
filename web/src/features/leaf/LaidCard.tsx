import { Box, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { answer, client, type Schemas } from "../../api/client"
import { Choice } from "../../ui/Choice"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { useWidth } from "../../ui/useWidth"
import { LeafShape } from "./LeafShape"

type By = Schemas["LaidPage"]["by"]
const BY: { value: By; label: string }[] = [
  { value: "twins", label: "twins and divisions" },
  { value: "arrival", label: "arrivals" },
  { value: "season", label: "two seasons of a plant" },
]
const ROW = 40
const NAME = 150
const NARROW = 92 // px a name gets on a phone: its code alone
const DESK = 560
const USUAL = 20

const laidQuery = (by: By) =>
  queryOptions({
    queryKey: ["leaves", "laid", by],
    queryFn: () => answer(client.GET("/api/leaves/laid", { params: { query: { by } } })),
  })

/** Lines over each other by a shared start, cut at the age the youngest has reached. */
export function LaidCard() {
  const [by, setBy] = useState<By>("twins")
  const groups = useQuery(laidQuery(by)).data?.groups ?? []
  return (
    <Card title="Over each other by a shared start" mt="4">
      <Choice label="Laid by" value={by} choices={BY} onValue={(v) => setBy(v as By)} />
      {groups.length === 0 && (
        <Text mt="2">
          Nothing to lay over each other yet: two plants of a kind, or two seasons.
        </Text>
      )}
      {groups.map((g) => (
        <Box key={g.title} mt="3">
          <Text fontWeight="semibold">{g.title}</Text>
          {g.at_age && (
            <Text fontSize="sm">
              <Quantity
                label={`Shared age of ${g.title}`}
                value={g.at_age.result.age_days}
                unit="days"
                working={{ kind: "here", working: g.at_age.working }}
              />
              . {g.at_age.result.sentence}
            </Text>
          )}
          <Laid group={g} />
        </Box>
      ))}
    </Card>
  )
}

function Laid({ group }: { group: Schemas["LaidGroup"] }) {
  const longest = Math.max(1, ...group.lines.map((l) => l.days))
  const [ref, wide] = useWidth<HTMLDivElement>(640)
  const left = wide > DESK ? NAME : NARROW
  const x = (day: number) => left + (day / longest) * (wide - left - 12)
  const age = group.at_age?.result.age_days
  const tall = ROW * group.lines.length + 6
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${wide} ${tall}`}
        width="100%"
        role="img"
        aria-label={group.lines
          .map(
            (l) =>
              `${l.name}: leaves on day ${(l.leaves ?? []).map((f) => f.day).join(", ") || "none"}`,
          )
          .join("; ")}
        fill="none"
      >
        {age !== undefined && (
          <rect
            x={left}
            y="0"
            width={x(age) - left}
            height={tall}
            fill="var(--chakra-colors-bg-inset)"
          />
        )}
        {group.lines.map((l, i) => {
          const foot = ROW * (i + 1) - 4
          return (
            <g key={l.name}>
              <text x="0" y={foot} fill="currentColor" style={{ fontSize: 13 }}>
                {wide > DESK ? l.name.slice(0, 22) : l.name.slice(0, 12)}
              </text>
              <line
                x1={left}
                x2={x(l.days)}
                y1={foot}
                y2={foot}
                stroke="var(--chakra-colors-leaf-edge)"
                strokeWidth="1.5"
              />
              {(l.leaves ?? []).map((f, k) => (
                <LeafShape
                  key={k}
                  x={x(f.day)}
                  base={foot}
                  tall={USUAL * Math.min(1.5, f.share ?? 0.5)}
                  formed={age !== undefined && f.day > age ? "formed before" : null}
                  dashed={f.share === null || f.share === undefined}
                />
              ))}
            </g>
          )
        })}
      </svg>
    </div>
  )
}
