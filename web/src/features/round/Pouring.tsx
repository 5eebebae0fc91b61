import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useEffect, useState } from "react"
import { Link } from "react-router"
import { roundQuery } from "../../api/queries"
import { useOutbox } from "../../app/useOutbox"
import { Loaded } from "../../ui/Page"
import { useReader } from "../../ui/useReader"
import { WaitingLine } from "../../ui/WaitingLine"
import { Finished } from "./Finished"
import { MixStep } from "./MixStep"
import { PourStep } from "./PourStep"
import { RowStep } from "./RowStep"
import { stepsOf } from "./steps"
import { useStepKeys } from "./useStepKeys"
import { keep, newWalk, useLeftWalk, type Walk as WalkState } from "./walk"
import { useWho, WhoPours } from "./WhoPours"

/** Full-screen walk at the bench: one pot fills the screen. */
export function Pouring() {
  useOutbox()
  useReader()
  const left = useLeftWalk()
  const [walk, setWalk] = useState<WalkState | null>(null)
  useEffect(() => {
    document.title = "Pouring · Fenwa"
  }, [])
  return (
    <Box as="main" minH="100dvh" bg="bg.panel">
      <Flex direction="column" minH="100dvh" maxW="560px" mx="auto" p="5">
        {walk ? (
          <Walk walk={walk} onWalk={setWalk} />
        ) : left && left.at > 0 ? (
          <GoOn left={left} onChoose={setWalk} />
        ) : (
          left !== undefined && <Begin onBegin={setWalk} />
        )}
      </Flex>
    </Box>
  )
}

/** The day's list, frozen when the walk begins: logging pours must not move it. */
function Begin({ onBegin }: { onBegin: (walk: WalkState) => void }) {
  const query = useQuery({ ...roundQuery, staleTime: 0 })
  const page = query.isFetching ? undefined : query.data
  useEffect(() => {
    if (page) onBegin(newWalk(page))
  }, [page, onBegin])
  return <Loaded query={query}>{() => <Text role="status">One moment.</Text>}</Loaded>
}

function GoOn({ left, onChoose }: { left: WalkState; onChoose: (walk: WalkState) => void }) {
  const [anew, setAnew] = useState(false)
  if (anew) return <Begin onBegin={onChoose} />
  return (
    <Flex direction="column" gap="4" mt="10">
      <Heading as="h1" size="2xl">
        A round is half walked
      </Heading>
      <Text fontSize="lg">
        {left.done.length} of {left.page.plan.pots_due} pots were poured on it, begun on the list of{" "}
        {left.page.today}.
      </Text>
      <WaitingLine />
      <Button data-key="Enter" minH="72px" fontSize="xl" onClick={() => onChoose(left)}>
        Go on where it was
      </Button>
      <Button variant="outline" minH="56px" onClick={() => setAnew(true)}>
        Begin with today’s list
      </Button>
    </Flex>
  )
}

function Walk({ walk, onWalk }: { walk: WalkState; onWalk: (walk: WalkState) => void }) {
  useStepKeys()
  const [who, setWho] = useWho()
  const { page, at } = walk
  const steps = stepsOf(page.plan, walk.opened)
  const step = steps[at]
  const finished = !step
  useEffect(() => keep(finished ? null : walk), [walk, finished])
  if (!step) return <Finished walk={walk} />
  const { can } = step
  const next = (poured: number[]) =>
    onWalk({ ...walk, at: at + 1, done: [...new Set([...walk.done, ...poured])] })
  const shared = {
    can,
    mixed: walk.cans[can.letter],
    today: page.today,
    by: who,
    onNext: next,
    onBack: at > 0 ? () => onWalk({ ...walk, at: at - 1 }) : undefined,
  }
  return (
    <>
      <Flex justify="space-between" color="fg.muted" gap="3" align="center">
        <Text>{`Can ${can.letter} · ${wherein(step)}`}</Text>
        <WhoPours who={who} onWho={setWho} />
        <Link to="/" data-back data-key="Escape">
          <Text as="span" textDecoration="underline">
            Leave
          </Text>
        </Link>
      </Flex>
      <Box
        role="progressbar"
        aria-label="Way through the round"
        aria-valuemin={0}
        aria-valuemax={steps.length}
        aria-valuenow={at}
        h="6px"
        my="2"
        bg="bg.subtle"
        borderRadius="full"
      >
        <Box
          h="6px"
          bg="ink.solid"
          borderRadius="full"
          style={{ width: `${(at / steps.length) * 100}%` }}
        />
      </Box>
      <WaitingLine />
      {step.kind === "mix" ? (
        <MixStep
          key={at}
          can={can}
          today={page.today}
          onMixed={(mixed) =>
            onWalk({ ...walk, at: at + 1, cans: { ...walk.cans, [can.letter]: mixed } })
          }
        />
      ) : step.kind === "row" ? (
        <RowStep
          key={step.name}
          {...shared}
          pots={step.pots}
          onOpen={() => onWalk({ ...walk, opened: [...walk.opened, step.name] })}
        />
      ) : (
        <PourStep key={`${can.letter}${step.pot.pot_id}`} {...shared} pot={step.pot} />
      )}
    </>
  )
}

const wherein = (step: Exclude<ReturnType<typeof stepsOf>[number], undefined>) =>
  step.kind === "mix"
    ? "mix it"
    : step.kind === "pour"
      ? `pot ${step.index} of ${step.of}`
      : `pots ${step.index} to ${step.index + step.pots.length - 1} of ${step.of}`
