import { Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Card } from "../../ui/Page"
import { CourseChart } from "./CourseChart"
import { rhythmQuery } from "./queries"

/** Where the present rhythm leads, and the changes that would hold the ceiling, on one chart. */
export function RhythmCard({
  potId,
  ceiling,
  today,
}: {
  potId: number
  ceiling: number
  today: string
}) {
  const found = useQuery(rhythmQuery(potId))
  const r = found.data?.result
  if (found.isError)
    return (
      <Card title="The year ahead">
        <Text color="fg.muted">{found.error.message}</Text>
      </Card>
    )
  if (!r) return null
  return (
    <Card title="The year ahead, and what would hold it">
      <Text mb="2" fontWeight="semibold">
        {r.sentence}
      </Text>
      <CourseChart
        label="Reading ahead for each change of rhythm"
        ceiling={ceiling}
        today={today}
        courses={r.options.map((o) => ({
          name: o.change === "as it is" ? "as it is" : `${o.change}: ${o.sentence}`,
          bold: o.change === "as it is",
          points: o.ahead.map((p) => ({ on: p.on, value: p.reading })),
        }))}
      />
    </Card>
  )
}
