import { Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { DataTable } from "../../ui/DataTable"
import { day, figure, numberIn } from "../../ui/format"
import { Card } from "../../ui/Page"
import { historyQuery } from "./queries"

const ENDED: Record<string, string> = {
  reached: "target reached",
  flattened: "flattened out",
  ended: "ended by hand",
  interrupted: "broken off",
}

/** What each flush of a pot achieved. */
export function HistoryCard({ potId, today }: { potId: number; today: string }) {
  const rows = useQuery(historyQuery(potId)).data?.flushes ?? []
  const whole = (v: number | null) => (v === null ? "not known" : numberIn(v, "µS/cm"))
  return (
    <Card title="Flushes so far">
      {rows.length === 0 ? (
        <Text color="fg.muted">
          No flush was walked through yet. What it achieved stands here then.
        </Text>
      ) : (
        <DataTable
          label="Flushes"
          head={["Day", "Before", "After", "Litres", "Efficiency", "End"]}
          minW="440px"
        >
          {rows.map((f) => (
            <tr key={f.id}>
              <td>{day(f.on, today)}</td>
              <td>{whole(f.before_uS_cm)}</td>
              <td>{whole(f.after_uS_cm)}</td>
              <td>{figure(f.litres, 3)}</td>
              <td>{f.efficiency === null ? "not told" : figure(f.efficiency, 2)}</td>
              <td>{ENDED[f.ended_as]}</td>
            </tr>
          ))}
        </DataTable>
      )}
    </Card>
  )
}
