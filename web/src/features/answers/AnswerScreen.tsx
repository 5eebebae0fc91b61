import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link, useParams, useSearchParams } from "react-router"
import { Choice } from "../../ui/Choice"
import { day } from "../../ui/format"
import { Card, Loaded, PageHead, Teach } from "../../ui/Page"
import { AnswerCards } from "./AnswerCards"
import { AnswerTable } from "./AnswerTable"
import { answersQuery, type Chosen, type PotAnswers } from "./queries"
import { PairCard } from "./PairCard"
import { Ruler } from "./Ruler"
import { TwinDrawing } from "./TwinDrawing"

/** Did it help? One dated change of one plant, against its twin over the same dates. */
export function AnswerScreen() {
  const id = Number(useParams().id)
  const [asked, setAsked] = useSearchParams()
  const beside = asked.get("beside")
  const query = answersQuery(
    id,
    asked.get("change") ?? "",
    asked.get("measure") ?? "",
    beside ? Number(beside) : undefined,
  )
  const ask = (name: string, value: string) => {
    const next = new URLSearchParams(asked)
    if (name === "change") next.delete("measure")
    next.set(name, value)
    setAsked(next, { replace: true })
  }
  return (
    <Loaded query={useQuery(query)}>
      {(page) =>
        page.chosen ? (
          <Answer page={page} chosen={page.chosen} ask={ask} />
        ) : (
          <Nothing page={page} />
        )
      }
    </Loaded>
  )
}

function Nothing({ page }: { page: PotAnswers }) {
  return (
    <>
      <PageHead title={`Did it help ${page.code}?`} line={page.name} />
      <Teach
        action={
          <Button asChild minH="44px">
            <Link to={`/pots/${page.pot_id}`}>Open {page.code}</Link>
          </Button>
        }
      >
        Nothing was changed here in the last fourteen months. A flush, another strength, rhythm,
        water or place, or a decision on its page can be asked about afterwards.
      </Teach>
    </>
  )
}

function Answer({
  page,
  chosen,
  ask,
}: {
  page: PotAnswers
  chosen: Chosen
  ask: (name: string, value: string) => void
}) {
  const r = chosen.answer.result
  const taken = page.measures.filter((m) => m.values > 0 || m.id === chosen.measure)
  const against = {
    twin: `Held against ${chosen.twin?.name ?? "its twin"} (${chosen.twin?.why ?? ""}) over the same dates.`,
    "last year": "No twin was measured: held against itself in the same season last year.",
    "own trend": "No twin and no last year: held against its own trend.",
  }[r.against]
  return (
    <>
      <PageHead
        title={`Did it help ${page.code}?`}
        line={`${chosen.change.words}, ${day(chosen.change.on, page.today)}. ${against}`}
      >
        <Button asChild minH="44px">
          <Link to={`/trials?kind=${chosen.change.kind}`}>Plan a trial</Link>
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to={`/compare/${page.pot_id}`}>Photos</Link>
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to={`/pots/${page.pot_id}`} data-back>
            Back
          </Link>
        </Button>
      </PageHead>
      <Flex gap="2" wrap="wrap" mb="3">
        <Choice
          label="Change"
          value={chosen.change.key}
          onValue={(v) => ask("change", v)}
          choices={page.changes.map((c) => ({
            value: c.key,
            label: `${day(c.on, page.today)}: ${c.words}`,
          }))}
        />
        <Choice
          label="Measure"
          value={chosen.measure}
          onValue={(v) => ask("measure", v)}
          choices={taken.map((m) => ({ value: m.id, label: m.name }))}
        />
        {chosen.twins.length > 1 && (
          <Choice
            label="Held against"
            value={String(chosen.twin?.id ?? "")}
            onValue={(v) => ask("beside", v)}
            choices={chosen.twins.map((t) => ({ value: String(t.id), label: t.name }))}
          />
        )}
      </Flex>
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 340px" }}
        gap="4"
        alignItems="start"
      >
        <Box order={{ base: 2, lg: 1 }} minW="0">
          <Card label="Before and after, beside what it is held against">
            <TwinDrawing chosen={chosen} today={page.today} name={page.code} />
            <Text fontSize="sm" color="fg.muted">
              Judged {day(r.opens_on, page.today)} to {day(r.closes_on, page.today)}:{" "}
              {chosen.window_why}. Whole leaves formed after the change, half ones were begun before
              it.
            </Text>
          </Card>
          <Ruler chosen={chosen} />
          <AnswerTable chosen={chosen} today={page.today} />
        </Box>
        <Box order={{ base: 1, lg: 2 }} minW="0">
          <AnswerCards chosen={chosen} today={page.today} code={page.code} />
          {chosen.twin && <PairCard potId={page.pot_id} beside={chosen.twin.id} />}
        </Box>
      </Grid>
    </>
  )
}
