import { Box, Flex, Text } from "@chakra-ui/react"
import { useEffect, useState } from "react"
import { Link } from "react-router"
import { usePotRows } from "../../api/queries"
import { useOutbox } from "../../app/useOutbox"
import { useReader } from "../../ui/useReader"
import { WaitingLine } from "../../ui/WaitingLine"
import { Finished } from "./Finished"
import { MixStep } from "./MixStep"
import { PourStep } from "./PourStep"
import { RowStep } from "./RowStep"
import { stepsOf } from "./steps"
import { useStepKeys } from "./useStepKeys"
import { keep, useLeftWalk, type Walk as WalkState } from "./walk"
import { Begin, GoOn } from "./WalkBegins"
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

function Walk({ walk, onWalk }: { walk: WalkState; onWalk: (walk: WalkState) => void }) {
  useStepKeys()
  const [who, setWho] = useWho()
  const { page, at } = walk
  const steps = stepsOf(page.plan, walk.opened)
  const step = steps[at]
  const finished = !step
  const rows = usePotRows(page.plan.legs.flatMap((leg) => leg.pot_ids))
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
        <PourStep
          key={`${can.letter}${step.pot.pot_id}`}
          {...shared}
          pot={step.pot}
          row={rows?.find((r) => r.id === step.pot.pot_id)}
        />
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
