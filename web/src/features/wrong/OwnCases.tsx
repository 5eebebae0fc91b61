import { Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { answer, client, keyed } from "../../api/client"
import { day } from "../../ui/format"
import { Card } from "../../ui/Page"
import { usePress } from "../../ui/usePress"
import { causesQuery, type Wrong } from "./queries"

/** Cases here before, and what closed cases of this collection did to what is likely. */
export function OwnCases({ page }: { page: Wrong }) {
  const causes = useQuery(causesQuery).data
  const reset = usePress((_: null, key: string) =>
    answer(client.POST("/api/causes/reset", { params: keyed(key) })),
  )
  const named = (id: string) => causes?.causes.find((c) => c.id === id)?.name ?? "not found out"
  const moved = (causes?.causes ?? []).filter((c) => c.closed > 0)
  return (
    <Card title="Cases">
      {page.case && <Text>Open since {day(page.case.opened_on, page.today)}.</Text>}
      {page.closed.map((c) => (
        <Text key={c.id}>
          {day(c.closed_on ?? c.opened_on, page.today)}:{" "}
          {c.cause ? named(c.cause) : "not found out"}.
        </Text>
      ))}
      {!page.case && page.closed.length === 0 && (
        <Text color="fg.muted">
          None here yet. A check or a reading that is followed opens one.
        </Text>
      )}
      {moved.length > 0 && (
        <>
          <Text mt="2" fontSize="sm" color="fg.muted">
            Closed cases move what is likely here:{" "}
            {moved.map((c) => `${c.name} ${c.closed}`).join(", ")}.
          </Text>
          <Button
            variant="outline"
            minH="44px"
            mt="2"
            loading={reset.isPending}
            onClick={() => reset.mutate(null)}
          >
            Reset to the tables
          </Button>
        </>
      )}
    </Card>
  )
}
