import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useInfiniteQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import { Choice } from "../../ui/Choice"
import { MoreRows, type Windowed } from "../../ui/MoreRows"
import { Card, Loaded, PageHead, Teach } from "../../ui/Page"
import type { Schemas } from "../../api/client"
import { ChangeRow } from "./ChangeRow"
import { Forest } from "./Forest"
import { changesQuery } from "./queries"
import { SchoolsCard } from "./SchoolsCard"

/** Every change of the year with its answer, so that next season starts from what was learnt. */
export function ChangesScreen() {
  const [kind, setKind] = useState("")
  const query = useInfiniteQuery(changesQuery(kind))
  return (
    <Loaded query={query}>
      {({ pages }) => {
        const [first] = pages
        const shown = pages.flatMap((p) => p.answers)
        return first && <Every page={first} {...{ shown, kind, setKind, query }} />
      }}
    </Loaded>
  )
}

type Shown = {
  page: Schemas["EveryChange"]
  shown: Schemas["AnswerBrief"][]
  kind: string
  setKind: (kind: string) => void
  query: Windowed
}

function Every({ page, shown, kind, setKind, query }: Shown) {
  const questions = page.questions.filter((q) => q.together)
  return (
    <>
      <PageHead
        title="Every change so far"
        line="What was changed in the last fourteen months, and what came of it."
      >
        <Button asChild minH="44px">
          <Link to="/trials">Trials</Link>
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to="/season-report">Season report</Link>
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to="/leaf" data-back>
            Back
          </Link>
        </Button>
      </PageHead>
      {page.kinds.length === 0 ? (
        <Teach>
          Nothing was changed yet. A flush, another strength, rhythm, water or place, and every
          decision stands here with its answer as leaves come.
        </Teach>
      ) : (
        <Grid
          templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.4fr) minmax(0,1fr)" }}
          gap="4"
          alignItems="start"
        >
          <Card label="Changes with their answers">
            <Flex justify="space-between" align="center" gap="2" wrap="wrap" mb="2">
              <Text fontWeight="semibold">
                {page.total} {page.total === 1 ? "change" : "changes"}
              </Text>
              <Choice
                label="Kind of change"
                value={kind}
                onValue={setKind}
                choices={[
                  { value: "", label: "all kinds" },
                  ...page.kinds.map((k) => ({ value: k, label: k })),
                ]}
              />
            </Flex>
            {shown.map((a) => (
              <ChangeRow key={`${a.pot_id}${a.key}`} row={a} today={page.today} />
            ))}
            <MoreRows query={query} left={page.total - shown.length} auto />
          </Card>
          <Box minW="0">
            {questions.map((q) => (
              <Forest key={`${q.question}${q.measure}`} question={q} />
            ))}
            {questions.length === 0 && (
              <Card title="Put together" mb="4">
                <Text>
                  One question asked of two plants or more is put together here. Of each there is
                  one answer so far.
                </Text>
              </Card>
            )}
            <SchoolsCard />
          </Box>
        </Grid>
      )}
    </>
  )
}
