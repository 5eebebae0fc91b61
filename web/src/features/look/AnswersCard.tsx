import { Box, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { answer, client } from "../../api/client"
import { Card } from "../../ui/Page"
import { OrganLine } from "./OrganLine"

const of = (pot_id: number) => ({ params: { path: { pot_id } } })
const organsQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "organs", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/organs", of(id))),
  })
const baselineQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "baseline", id],
    queryFn: () => answer(client.GET("/api/pots/{pot_id}/baseline", of(id))),
  })
type Answer = { result: { sentence: string } } | null
const said = (name: string, id: number, ask: () => Promise<Answer>) =>
  queryOptions({
    queryKey: ["pots", name, id],
    queryFn: async () => (await ask())?.result.sentence ?? null,
  })

/** Root tips, dew, pitchers and flowers over time, and what counting them answers. */
export function AnswersCard({ potId, today }: { potId: number; today: string }) {
  const organs = useQuery(organsQuery(potId)).data ?? []
  const kinds = [...new Set(organs.map((o) => o.seen.organ))]
  const has = (organ: string) => kinds.some((k) => k === organ)
  const there = useQuery(baselineQuery(potId)).data?.there ?? []
  const flowers = useQuery({
    ...said("flowers", potId, () => answer(client.GET("/api/pots/{pot_id}/flowers", of(potId)))),
    enabled: has("flowers"),
  }).data
  const bulbs = useQuery({
    ...said("bulbs", potId, () => answer(client.GET("/api/pots/{pot_id}/bulbs", of(potId)))),
    enabled: has("bulbs"),
  }).data
  const offset = useQuery(
    said("offset", potId, () => answer(client.GET("/api/pots/{pot_id}/offsets", of(potId)))),
  ).data
  const sentences = [
    there.length > 0 &&
      `There when it came, never counted: ${there.map((m) => m.kind).join(", ")}.`,
    flowers,
    bulbs,
    offset && `Side growth: ${offset}`,
  ].filter((s): s is string => typeof s === "string")
  if (sentences.length === 0 && kinds.length === 0) return null
  return (
    <Card title="Roots, pitchers, flowers" mt="4">
      {sentences.map((s) => (
        <Text key={s}>{s}</Text>
      ))}
      {kinds.map((kind) => (
        <Box key={kind} mt="2">
          <OrganLine
            organ={kind}
            seen={organs.filter((o) => o.seen.organ === kind)}
            today={today}
          />
        </Box>
      ))}
    </Card>
  )
}
