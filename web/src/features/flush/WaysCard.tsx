import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { useNavigate } from "react-router"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { waterQuery } from "../../api/queries"
import { figure } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { usePress } from "../../ui/useEntryForm"
import { historyQuery, waysQuery } from "./queries"
import { WayDrawing } from "./WayDrawing"

/** Every way to bring this pot down, side by side; the first one starts. */
export function WaysCard({ potId, code, target }: { potId: number; code: string; target: number }) {
  const [water, setWater] = useState("")
  const waters = useQuery(waterQuery).data?.waters ?? []
  const ways = useQuery(waysQuery(potId, water))
  const running = useQuery(historyQuery(potId)).data?.running_id ?? null
  const go = useNavigate()
  const begin = usePress<number, Schemas["FlushOut"]>(
    (water_id, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/flushes", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { water_id, way: "rounds", note: "", by: "" },
        }),
      ),
    (f) => void go(`/flush/${f.id}`),
  )
  const found = ways.data
  const m = found?.result
  const used = waters.find((w) => w.name === m?.water)
  return (
    <Card title={`Flush ${code} down to ${figure(target, 6)} µS/cm`}>
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
            <Box key={w.way} borderTopWidth="1px" py="2" opacity={w.possible ? 1 : 0.7}>
              <Flex justify="space-between" gap="3" align="baseline" wrap="wrap">
                <Text fontWeight="semibold">{w.way[0]?.toUpperCase() + w.way.slice(1)}</Text>
                {w.possible && (
                  <Text>
                    <Quantity
                      label={`Water for ${w.way}`}
                      kind="volume"
                      value={w.litres}
                      working={{ kind: "here", working: found.working }}
                    />
                    , {time(w.minutes, w.days)}
                  </Text>
                )}
              </Flex>
              {w.possible && <WayDrawing way={w} pause={m.plan.pause_min} />}
              <Text fontSize="sm">{w.sentence}</Text>
              {w.possible && (
                <Text fontSize="sm" color="fg.muted">
                  {w.reading_after_uS_cm !== null &&
                    `Then about ${figure(Math.round(w.reading_after_uS_cm), 6)} µS/cm. `}
                  {w.risk}
                </Text>
              )}
            </Box>
          ))}
          {m.cautions.map((c) => (
            <Text key={c} fontSize="sm" color="fg.muted" mt="1">
              {c}
            </Text>
          ))}
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
            <Button
              mt="3"
              minH="48px"
              loading={begin.isPending}
              disabled={used === undefined}
              onClick={() => used && begin.mutate(used.id)}
            >
              Start the flush
            </Button>
          )}
        </>
      )}
    </Card>
  )
}

const time = (minutes: number, days: number) =>
  days > 1
    ? `${days} days`
    : minutes < 90
      ? `${Math.round(minutes)} min`
      : `${figure(minutes / 60, 2)} h`
