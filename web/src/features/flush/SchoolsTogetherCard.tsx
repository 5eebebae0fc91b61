import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { DataTable } from "../../ui/DataTable"
import { figure } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { schoolsTogetherQuery } from "./queries"

/** Three schools of flushing over the last year of every pot, or of a kind. */
export function SchoolsTogetherCard({ kind, of }: { kind: string; of: string }) {
  const [asked, setAsked] = useState<string | null>(null)
  const open = asked === kind
  const found = useQuery({ ...schoolsTogetherQuery(kind), enabled: open })
  const s = found.data?.result
  const most = Math.max(1, ...(s?.schools.map((y) => y.days_over) ?? []))
  return (
    <Card title={`Three schools over ${of}`}>
      {!open && (
        <Flex gap="3" align="center" wrap="wrap">
          <Text flex="1 1 220px">
            By calendar, by a measured reading, by the forecast: the last year of each pot, played
            again.
          </Text>
          <Button variant="outline" minH="44px" onClick={() => setAsked(kind)}>
            Compare
          </Button>
        </Flex>
      )}
      {open && found.isPending && <Text role="status">Playing the year again…</Text>}
      {found.isError && <Text role="alert">{found.error.message}</Text>}
      {s && found.data && (
        <>
          <Text mb="2">{s.sentence}</Text>
          <DataTable
            label={`Schools over ${of}`}
            head={["School", "Flushes", "Litres", "Pot-days over"]}
            minW="300px"
          >
            {s.schools.map((y) => (
              <tr key={y.school}>
                <td>{y.words}</td>
                <td>{y.flushes}</td>
                <td>{figure(y.litres, 3)}</td>
                <td>
                  <Quantity
                    label={`Pot-days over, ${y.words}`}
                    kind="plain"
                    value={y.days_over}
                    bare
                    working={{ kind: "here", working: found.data.working }}
                  />
                  <Box
                    aria-hidden="true"
                    h="6px"
                    mt="1"
                    borderRadius="full"
                    bg={y.days_over ? "state.stop" : "state.good"}
                    w={`${Math.max(3, (100 * y.days_over) / most)}%`}
                  />
                </td>
              </tr>
            ))}
          </DataTable>
        </>
      )}
    </Card>
  )
}
