import { Box, Button, type ButtonProps, Flex, Grid, Text } from "@chakra-ui/react"
import { useMutation, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, Navigate } from "react-router"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { lookAround } from "../../api/collection"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { startQuery } from "../../api/queries"
import { type Answers, NOTHING, sent, useDrawn } from "./answers"
import { DrinksTable, MissingList } from "./DrinksTable"
import { FirstWaterline } from "./FirstWaterline"
import { MeasuresPart } from "./MeasuresPart"
import { PlantsPart } from "./PlantsPart"
import { WatersPart } from "./WatersPart"

/** Three questions on one page, and the answer drawn beside them. */
export function Screen() {
  const state = useQuery(startQuery)
  return <Loaded query={state}>{(s) => (s.empty ? <Start /> : <Navigate to="/" replace />)}</Loaded>
}

const counted = (n: number, word: string) => `${n} ${word}${n === 1 ? "" : "s"}`
const saved = (b: Schemas["Begun"]) =>
  `Saved: ${counted(b.pots, "pot")}, ${counted(b.waters, "water")}, ${counted(b.meters, "meter")}.`

function Start() {
  const [answers, setAnswers] = useState<Answers>(NOTHING)
  const drawn = useDrawn(answers)
  const notice = useNotice()
  const look = useMutation({ mutationFn: lookAround })
  const save = usePress(
    (a: Answers, key) => answer(client.POST("/api/start", { params: keyed(key), body: sent(a) })),
    (begun) => notice({ text: saved(begun) }), // asked anew, the collection is no longer empty: on to the round
  )
  const change = (part: Partial<Answers>) => setAnswers((a) => ({ ...a, ...part }))
  const some = answers.lines.length + answers.waters.length + answers.measures.length > 0
  return (
    <>
      <PageHead
        title="Three questions, then you can pour"
        line="Answer one or all. Each can be changed later, and nothing leaves this computer."
      >
        <Button asChild variant="outline" minH="48px">
          <Link to="/sums">Only a quick sum</Link>
        </Button>
        <Button
          variant="outline"
          minH="48px"
          loading={look.isPending}
          loadingText="Making the demonstration"
          onClick={() => look.mutate()}
        >
          Look around in the demonstration
        </Button>
        {some && (
          <SaveAll hideBelow="lg" loading={save.isPending} onClick={() => save.mutate(answers)} />
        )}
      </PageHead>
      {(save.error ?? look.error) && (
        <Text role="alert" color="state.stop" mb="3">
          {(save.error ?? look.error)?.message}
        </Text>
      )}
      <Grid
        templateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 430px) minmax(0, 1fr)" }}
        gap="4"
        alignItems="start"
      >
        <Card divideY="1px">
          <PlantsPart answers={answers} drawn={drawn.data} change={change} />
          <WatersPart answers={answers} change={change} problem={drawn.error?.message} />
          <MeasuresPart answers={answers} change={change} />
          {some && (
            <SaveAll
              hideFrom="lg"
              w="100%"
              mt="4"
              loading={save.isPending}
              onClick={() => save.mutate(answers)}
            />
          )}
        </Card>
        <Flex direction="column" gap="4" minW="0">
          <FirstWaterline drawn={drawn.data} />
          {drawn.data && some && (
            <Grid templateColumns={{ base: "minmax(0, 1fr)", xl: "3fr 2fr" }} gap="4">
              <DrinksTable drawn={drawn.data} />
              <MissingList drawn={drawn.data} />
            </Grid>
          )}
          <Box fontSize="sm" color="fg.muted">
            You come with data?{" "}
            <Link to="/house" style={{ textDecoration: "underline" }}>
              Import an archive or a backup
            </Link>
            .
          </Box>
        </Flex>
      </Grid>
    </>
  )
}

/** At the head of a desk, at the thumb on a phone. */
function SaveAll(rest: ButtonProps) {
  return (
    <Button minH="48px" {...rest}>
      Save
    </Button>
  )
}
