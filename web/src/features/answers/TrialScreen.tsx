import { Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useParams } from "react-router"
import { answer, client, keyed } from "../../api/client"
import { Entry } from "../../ui/Entry"
import { day } from "../../ui/format"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { usePress } from "../../ui/usePress"
import { Grade } from "./Grade"
import { TrialBench } from "./TrialBench"
import { type TrialPage, trialQuery } from "./queries"
import { runs } from "./spoken"

/** One trial: its pairs on the bench, what they say so far, and what else changed. */
export function TrialScreen() {
  const id = Number(useParams().id)
  return <Loaded query={useQuery(trialQuery(id))}>{(page) => <Trial page={page} />}</Loaded>
}

function Trial({ page }: { page: TrialPage }) {
  const { row, answer: told } = page
  const [ending, setEnding] = useState(false)
  return (
    <>
      <PageHead
        title={row.question}
        line={`${row.measure}. ${runs(row, page.today)}. Coin ${page.plan.seed}.`}
      >
        {row.measure === "rating" && (
          <Button asChild minH="44px">
            <Link to="/rate">Rate photos</Link>
          </Button>
        )}
        {row.running && (
          <Button variant="outline" minH="44px" onClick={() => setEnding(!ending)}>
            End
          </Button>
        )}
        <Button asChild variant="outline" minH="44px">
          <Link to="/trials" data-back>
            Back
          </Link>
        </Button>
      </PageHead>
      {ending && <EndForm id={row.id} onDone={() => setEnding(false)} />}
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 340px" }}
        gap="4"
        alignItems="start"
      >
        <TrialBench page={page} />
        <Flex direction="column" gap="4">
          <Card title="So far">
            <Grade grade={told.grade.grade} />
            <Text mt="2">
              {told.effect && (
                <>
                  <Quantity
                    label="Effect so far"
                    value={told.effect.result.middle_shown}
                    unit={page.unit}
                    working={{ kind: "here", working: told.effect.working }}
                  />
                  .{" "}
                </>
              )}
              {told.sentence}
            </Text>
            {told.grade.because.map((b) => (
              <Text key={b} fontSize="sm" color="fg.muted">
                {b}
              </Text>
            ))}
            {page.gained && <Text mt="2">{page.gained}</Text>}
            {!row.can_answer && <Text color="state.caution">{page.plan.sentence}</Text>}
          </Card>
          <Card title="What else changed">
            {page.noticed.length === 0 && <Text color="fg.muted">Nothing since it began.</Text>}
            {page.noticed.map((n) => (
              <Text
                key={`${n.on}${n.words}${n.one_sided}`}
                color={n.one_sided ? "state.caution" : undefined}
              >
                {day(n.on, page.today)}, {n.codes.join(", ")}: {n.words}.{" "}
                {n.one_sided ? "One side only: the trial is confounded." : "Both sides."}
              </Text>
            ))}
          </Card>
          <Card title="The rules, told before">
            <Text fontSize="sm">{page.plan.leave_out_rule}</Text>
            <Text fontSize="sm" mt="1">
              Looks: {page.plan.looks.map((d) => day(d, page.today)).join(", ")}.
            </Text>
          </Card>
        </Flex>
      </Grid>
    </>
  )
}

function EndForm({ id, onDone }: { id: number; onDone: () => void }) {
  const [why, setWhy] = useState("")
  const end = usePress(
    (_: null, key: string) =>
      answer(
        client.POST("/api/trials/{trial_id}/end", {
          params: { ...keyed(key), path: { trial_id: id } },
          body: { why },
        }),
      ),
    onDone,
  )
  return (
    <Card title="End the trial" mb="4">
      <Entry
        label="Why, if its last day has not come"
        value={why}
        onValue={setWhy}
        problem={end.error?.message}
      />
      <Flex gap="3" mt="3">
        <Button minH="48px" loading={end.isPending} onClick={() => end.mutate(null)}>
          End
        </Button>
        <Button variant="outline" minH="48px" data-back onClick={onDone}>
          Cancel
        </Button>
      </Flex>
    </Card>
  )
}
