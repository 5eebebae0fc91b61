import { Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useSearchParams } from "react-router"
import { potNamesQuery } from "../../api/queries"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { GradeWord } from "./Grade"
import { trialsQuery } from "./queries"
import { TrialForm } from "./TrialForm"
import { runs } from "./spoken"

/** Trials that run and ran, and planning a new one. */
export function TrialsScreen() {
  const asked = useSearchParams()[0].get("kind")
  const [open, setOpen] = useState(asked !== null)
  const pots = useQuery(potNamesQuery).data ?? []
  return (
    <>
      <PageHead
        title="Trials"
        line="Pairs alike, a coin that is kept, days to look set before. The round follows the plan."
      >
        {!open && (
          <Button data-new minH="44px" onClick={() => setOpen(true)}>
            Add a trial
          </Button>
        )}
        <Button asChild variant="outline" minH="44px">
          <Link to="/changes" data-back>
            Back
          </Link>
        </Button>
      </PageHead>
      {open && <TrialForm pots={pots} kind={asked ?? "water"} onClose={() => setOpen(false)} />}
      <Loaded query={useQuery(trialsQuery)}>
        {(trials) => (
          <Grid templateColumns={{ base: "minmax(0,1fr)", md: "repeat(2, minmax(0,1fr))" }} gap="4">
            {trials.length === 0 && (
              <Text>
                No trial yet. One needs two plants alike, or one plant and patience: a change in
                turns, with a flush between.
              </Text>
            )}
            {trials.map((t) => (
              <Card key={t.id} label={t.question}>
                <Link
                  to={`/trials/${t.id}`}
                  style={{
                    textDecoration: "underline",
                    fontWeight: 600,
                    display: "inline-block",
                    paddingBlock: 9,
                    marginBlock: 0,
                  }}
                >
                  {t.question}
                </Link>
                <Text color="fg.muted">
                  {runs(t)}. {t.pots} {t.pots === 1 ? "plant" : "plants"}.
                </Text>
                <Text mt="1">
                  <GradeWord grade={t.grade} />. {t.sentence}
                </Text>
                {!t.can_answer && (
                  <Text color="state.caution">Told beforehand: no answer to be called sure.</Text>
                )}
              </Card>
            ))}
          </Grid>
        )}
      </Loaded>
    </>
  )
}
