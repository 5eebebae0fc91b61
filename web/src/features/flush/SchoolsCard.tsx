import { Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { DataTable } from "../../ui/DataTable"
import { day, figure } from "../../ui/format"
import { Card } from "../../ui/Page"
import { CourseChart } from "./CourseChart"
import { schoolsQuery } from "./queries"

/** When to flush, by three schools: what each would have done over the last year with this pot's own log. */
export function SchoolsCard({
  potId,
  ceiling,
  today,
}: {
  potId: number
  ceiling: number
  today: string
}) {
  const found = useQuery(schoolsQuery(potId))
  const s = found.data?.result
  if (found.isError) return <Text role="alert">{found.error.message}</Text>
  if (!s) return null
  return (
    <Card title="Three schools over its own log">
      <Text mb="2">{s.sentence}</Text>
      <CourseChart
        label={`Reading since ${day(s.since, today)} by each school`}
        ceiling={ceiling}
        today={today}
        courses={s.schools.map((y) => ({
          name: y.words,
          bold: y.school === "as logged",
          ticks: y.flushes,
          points: y.days.map((on, i) => ({ on, value: y.readings[i] ?? 0 })),
        }))}
      />
      <DataTable label="Schools" head={["School", "Flushes", "Litres", "Days over"]} minW="300px">
        {s.schools.map((y) => (
          <tr key={y.school}>
            <td>{y.words}</td>
            <td>{y.flushes.length}</td>
            <td>{figure(y.litres, 3)}</td>
            <td>{y.days_over}</td>
          </tr>
        ))}
      </DataTable>
    </Card>
  )
}
