import { Button, Flex, Grid, NativeSelect, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { Link } from "react-router"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { potNamesQuery } from "../../api/queries"
import { useNotice } from "../../ui/noticeContext"
import { Card } from "../../ui/Page"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"
import { Verdict } from "./Verdict"
import type { Candidate } from "./candidate"

const candidatesQuery = queryOptions({
  queryKey: ["candidates"],
  queryFn: () => answer(client.GET("/api/candidates")),
})

/** Plants judged and saved, side by side; one that came home names its pot. */
export function Kept() {
  const rows = useQuery(candidatesQuery).data ?? []
  const pots = useQuery(potNamesQuery).data ?? []
  if (rows.length === 0) return <Text color="fg.muted">Nothing saved yet.</Text>
  return (
    <Grid templateColumns="repeat(auto-fill, minmax(260px, 1fr))" gap="4" alignItems="start">
      {rows.map((c) => (
        <One key={c.id} candidate={c} pots={pots} />
      ))}
    </Grid>
  )
}

function One({ candidate, pots }: { candidate: Candidate; pots: Schemas["PotName"][] }) {
  const notice = useNotice()
  const undo = useUndo()
  const bought = usePress(
    (potId: number, key) =>
      answer(
        client.POST("/api/candidates/{candidate_id}/bought", {
          params: { ...keyed(key), path: { candidate_id: candidate.id } },
          body: { pot_id: potId },
        }),
      ),
    () => notice({ text: `${candidate.name}: the verdict stays with its pot.` }),
  )
  const home = pots.find((p) => p.id === candidate.pot_id)
  return (
    <Card title={candidate.name}>
      <Text fontSize="sm" color="fg.muted" mb="1">
        {candidate.kind}, {candidate.on}
      </Text>
      <Verdict judged={candidate.judged} />
      <Flex gap="2" mt="3" wrap="wrap" align="center">
        {home ? (
          <Link to={`/pots/${home.id}`}>Came home as {home.code}</Link>
        ) : (
          <NativeSelect.Root w="190px">
            <NativeSelect.Field
              aria-label={`${candidate.name} came home as`}
              minH="44px"
              value=""
              onChange={(e) => bought.mutate(Number(e.target.value))}
            >
              <option value="">Came home as ...</option>
              {pots.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.code} {p.name}
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator aria-hidden />
          </NativeSelect.Root>
        )}
        <Button
          size="sm"
          variant="outline"
          minH="44px"
          aria-label={`Delete ${candidate.name}`}
          onClick={() => {
            undo("candidate", candidate.id)
            notice({
              text: `${candidate.name} is deleted.`,
              undo: () => undo("candidate", candidate.id, true),
            })
          }}
        >
          Delete
        </Button>
      </Flex>
    </Card>
  )
}
