import { Box, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { DataTable } from "../../ui/DataTable"
import { day } from "../../ui/format"
import { Card } from "../../ui/Page"
import { rinseCalendarQuery } from "./queries"

/** Flushes by calendar for those who hold to one: dates, and who is left out with the reason. */
export function RinseCalendar({ today }: { today: string }) {
  const [open, setOpen] = useState(false)
  const page = useQuery({ ...rinseCalendarQuery, enabled: open }).data
  const out = page?.pots.filter((p) => p.left_out) ?? []
  const dated = page?.pots.filter((p) => !p.left_out) ?? []
  return (
    <Card>
      <Box asChild>
        <details onToggle={(e) => setOpen(e.currentTarget.open)}>
          <summary style={{ cursor: "pointer", minHeight: 44, fontWeight: 600 }}>
            By calendar: the next flushes of each pot
          </summary>
          <DataTable label="Flushes by calendar" head={["Pot", "Each", "Days"]} minW="360px">
            {dated.map((p) => (
              <tr key={p.pot_id}>
                <td>
                  {p.code} {p.name}
                </td>
                <td>{p.each_days} days</td>
                <td>
                  {p.dates
                    .slice(0, 4)
                    .map((d) => day(d, today))
                    .join(", ")}
                </td>
              </tr>
            ))}
          </DataTable>
          {out.map((p) => (
            <Text key={p.pot_id} fontSize="sm" mt="1">
              <b>{p.code}</b> left out. {p.left_out}
            </Text>
          ))}
        </details>
      </Box>
    </Card>
  )
}
