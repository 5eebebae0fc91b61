import { Box, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { answer, client } from "../../api/client"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { LeavesTable } from "./LeavesTable"

const of = (pot_id: number) => ({ params: { path: { pot_id } } })
const leavesQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "leaves", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/leaves", of(id))),
  })
const balanceQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "balance", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/leaf-balance", of(id))),
  })
const responseQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "response", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/response", of(id))),
  })

/** The plant's leaves as records, what is new of its marks, and how it stands against its own usual. */
export function LeavesCard({ potId, today }: { potId: number; today: string }) {
  const page = useQuery(leavesQuery(potId)).data
  const balance = useQuery(balanceQuery(potId)).data
  const response = useQuery(responseQuery(potId)).data
  if (!page || page.leaves.length === 0) return null
  const { trend, marks } = page
  return (
    <Card title="Leaves" mt="4">
      <Text>
        {trend.result.sentence} {balance?.result.sentence} {marks.result.sentence}
      </Text>
      {trend.result.checks.map((c) => (
        <Text key={c} color="state.caution">
          {c}
        </Text>
      ))}
      {page.readings.map((r) => (
        <Text key={r.first}>
          One reading: {r.first} The other: {r.second}
        </Text>
      ))}
      {response && response.result.score !== null && (
        <Text>
          Against its own usual{" "}
          <Quantity
            label="Score of the plant"
            value={response.result.score}
            bare
            working={{ kind: "here", working: response.working }}
          />
          : {response.result.sentence}
        </Text>
      )}
      <Box mt="2">
        <LeavesTable leaves={page.leaves} today={today} />
      </Box>
    </Card>
  )
}
