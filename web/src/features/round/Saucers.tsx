import { Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useEffect, useState } from "react"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { timersQuery } from "../../api/queries"
import { Card } from "../../ui/Page"
import { usePress } from "../../ui/usePress"

/** Saucers to empty, by the server's clock: a reload changes nothing. */
export function Saucers() {
  const query = useQuery(timersQuery)
  const timers = query.data ?? []
  if (timers.length === 0) return null
  const ends = [...new Set(timers.map((t) => t.ends_at))]
  return (
    <>
      {ends.map((end) => (
        <Group
          key={end}
          timers={timers.filter((t) => t.ends_at === end)}
          fetchedAt={query.dataUpdatedAt}
        />
      ))}
    </>
  )
}

function Group({ timers, fetchedAt }: { timers: Schemas["TimerOut"][]; fetchedAt: number }) {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const tick = setInterval(() => setNow(Date.now()), 10_000)
    return () => clearInterval(tick)
  }, [])
  const done = usePress((ids: number[], key) =>
    answer(client.POST("/api/timers/done", { params: keyed(key), body: { ids } })),
  )
  const left = Math.max(
    0,
    Math.ceil(((timers[0]?.left_s ?? 0) - Math.max(0, now - fetchedAt) / 1000) / 60),
  )
  return (
    <Card borderColor={left === 0 ? "state.caution" : undefined}>
      <Flex justify="space-between" gap="3" align="center" wrap="wrap">
        <Text>
          <b>{left === 0 ? "Empty the saucers now" : `Empty the saucers in ${left} min`}</b>
          <br />
          {timers.map((t) => t.code).join(", ")}
        </Text>
        <Button
          variant="outline"
          minH="44px"
          loading={done.isPending}
          onClick={() => done.mutate(timers.map((t) => t.id))}
        >
          Emptied
        </Button>
      </Flex>
    </Card>
  )
}
