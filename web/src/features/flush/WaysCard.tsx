import { Mind } from "../../ui/Mind"
import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { useNavigate } from "react-router"
import type { Schemas } from "../../api/client"
import { keepWalk, type Outcome, post } from "../../api/outbox"
import { waterQuery } from "../../api/queries"
import { amount } from "../../ui/format"
import { Card } from "../../ui/Page"
import { usePress } from "../../ui/usePress"
import { type Begun } from "./begun"
import { beginPath, historyQuery, waysQuery } from "./queries"
import { StartForm } from "./StartForm"
import { WayRow } from "./WayRow"

/** Every way to bring this pot down, side by side; the first one starts. */
export function WaysCard({
  potId,
  code,
  target,
  today,
}: {
  potId: number
  code: string
  target: number
  today: string
}) {
  const [other, setOther] = useState(false)
  const [water, setWater] = useState("")
  const waters = useQuery(waterQuery).data?.waters ?? []
  const ways = useQuery(waysQuery(potId, water))
  const running = useQuery(historyQuery(potId)).data?.running_id ?? null
  const go = useNavigate()
  const begin = usePress<number, { key: string; outcome: Outcome }>(
    async (water_id, key) => {
      const outcome = await post({
        key,
        path: beginPath(potId),
        title: `${code}: flush begun`,
        body: { water_id, way: "rounds", note: "", by: "", at: new Date().toISOString() },
      })
      if (outcome.state === "refused") throw outcome.problem
      return { key, outcome }
    },
    ({ key, outcome }) => {
      if (outcome.state === "arrived") {
        void go(`/flush/${(outcome.answer as Schemas["FlushOut"]).id}`)
        return
      }
      const plan = ways.data?.result.plan
      const begun: Begun = {
        code,
        water: ways.data?.result.water ?? "",
        round_L: plan?.round_L ?? 0,
        rounds: plan?.rounds ?? 0,
        pause_min: plan?.pause_min ?? 0,
      }
      void keepWalk(`flush-begun-${key}`, begun).then(() => go(`/flush/waiting/${key}`))
    },
  )
  const found = ways.data
  const m = found?.result
  const used = waters.find((w) => w.name === m?.water)
  return (
    <Card title={`Flush ${code} down to ${amount(target, "µS/cm")}`}>
      {ways.isError && <Text role="alert">{ways.error.message}</Text>}
      {found && m && (
        <>
          <Text mb="2">{m.water_sentence}</Text>
          {waters.length > 1 && (
            <Flex gap="2" wrap="wrap" mb="3" role="group" aria-label="Water">
              {waters.map((w) => (
                <Button
                  key={w.id}
                  size="sm"
                  minH="44px"
                  variant={w.name === m.water ? "solid" : "outline"}
                  aria-pressed={w.name === m.water}
                  onClick={() => setWater(w.name)}
                >
                  {w.name}
                </Button>
              ))}
            </Flex>
          )}
          {m.ways.map((w) => (
            <WayRow key={w.way} way={w} found={found} />
          ))}
          {m.cautions.map((c) => (
            <Text key={c} fontSize="sm" color="fg.muted" mt="1">
              {c}
            </Text>
          ))}
          <Mind of="disposal" />
          {begin.isError && (
            <Text role="alert" color="state.stop" mt="2">
              {begin.error.message}
            </Text>
          )}
          {running !== null ? (
            <Button mt="3" minH="48px" onClick={() => void go(`/flush/${running}`)}>
              Go on with the flush
            </Button>
          ) : (
            <Flex gap="2" wrap="wrap" mt="3">
              <Button
                minH="48px"
                loading={begin.isPending}
                disabled={used === undefined}
                onClick={() => used && begin.mutate(used.id)}
              >
                Start the flush
              </Button>
              <Button
                minH="48px"
                variant="outline"
                disabled={used === undefined}
                onClick={() => setOther(true)}
              >
                Start another way
              </Button>
            </Flex>
          )}
          {other && used && running === null && (
            <Box mt="3">
              <StartForm
                potId={potId}
                waterId={used.id}
                today={today}
                found={m}
                onBegun={(id) => void go(`/flush/${id}`)}
                onClose={() => setOther(false)}
              />
            </Box>
          )}
        </>
      )}
    </Card>
  )
}
