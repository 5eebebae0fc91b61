import { Button, Flex, Heading, Text } from "@chakra-ui/react"
import { Link } from "react-router"
import { answer, client, keyed } from "../../api/client"
import { listed } from "../../ui/format"
import { WaitingLine } from "../../ui/WaitingLine"
import { usePress } from "../../ui/usePress"
import type { Walk } from "./walk"

const SAUCER_MIN = 20
const LEFT_SHOWN = 12

/** The end of a walk: what was done, what waits, and the saucers. */
export function Finished({ walk }: { walk: Walk }) {
  const { plan } = walk.page
  const poured = walk.done.length
  const timer = usePress((pot_ids: number[], key) =>
    answer(
      client.POST("/api/timers", { params: keyed(key), body: { pot_ids, minutes: SAUCER_MIN } }),
    ),
  )
  const codes = new Map(plan.cans.flatMap((c) => c.pots).map((p) => [p.pot_id, p.code]))
  const left = [...codes].filter(([id]) => !walk.done.includes(id)).map(([, code]) => code)
  const drained = [
    ...new Set(
      plan.cans
        .filter((c) => c.job !== "leaf spray")
        .flatMap((c) => c.pots)
        .filter((p) => p.route === "top" && walk.done.includes(p.pot_id))
        .map((p) => p.pot_id),
    ),
  ]
  return (
    <Flex direction="column" flex="1" gap="4" mt="20">
      <Heading as="h1" size="2xl">
        {plan.pots_due === 0
          ? "Nothing is due today"
          : poured === 0
            ? "Nothing was poured"
            : "The round is done"}
      </Heading>
      <WaitingLine />
      {plan.pots_due > 0 && (
        <Text fontSize="lg">
          {poured} of {plan.pots_due} pots poured.
          {drained.length > 0 && " Empty the saucers that must not stand wet."}
        </Text>
      )}
      {left.length > 0 && <Text>Not poured: {listed(left, LEFT_SHOWN)}.</Text>}
      {poured > 0 && plan.clean_hands && <Text>{plan.clean_hands}</Text>}
      {timer.isSuccess && (
        <Text role="status">
          The round’s page says when {SAUCER_MIN} minutes are over, and goes on saying so.
        </Text>
      )}
      {timer.isError && (
        <Text role="alert" color="state.stop">
          {timer.error.message}
        </Text>
      )}
      <Flex direction="column" gap="4" mt="auto">
        {drained.length > 0 && !timer.isSuccess && (
          <Button
            variant="outline"
            minH="56px"
            loading={timer.isPending}
            onClick={() => timer.mutate(drained)}
          >
            Remind me of the saucers in {SAUCER_MIN} min
          </Button>
        )}
        <Button data-key="Enter" asChild minH="64px" fontSize="lg">
          <Link to="/">Back to the round</Link>
        </Button>
      </Flex>
    </Flex>
  )
}
