import { Button, Flex, Heading, Text } from "@chakra-ui/react"
import { Link } from "react-router"
import { answer, client, keyed } from "../../api/client"
import { WaitingLine } from "../../ui/WaitingLine"
import { usePress } from "../../ui/usePress"
import type { Walk } from "./walk"

const SAUCER_MIN = 20

/** The end of a walk: what was done, what waits, and the saucers. */
export function Finished({ walk }: { walk: Walk }) {
  const { plan } = walk.page
  const timer = usePress((pot_ids: number[], key) =>
    answer(
      client.POST("/api/timers", { params: keyed(key), body: { pot_ids, minutes: SAUCER_MIN } }),
    ),
  )
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
    <Flex direction="column" gap="4" mt="10">
      <Heading as="h1" size="2xl">
        {plan.pots_due === 0 ? "Nothing is due today" : "The round is done"}
      </Heading>
      <WaitingLine />
      {plan.pots_due > 0 && (
        <Text fontSize="lg">
          {walk.done.length} of {plan.pots_due} pots poured. Empty the saucers that must not stand
          wet.
        </Text>
      )}
      {plan.clean_hands && <Text>{plan.clean_hands}</Text>}
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
      <Button data-key="Enter" asChild minH="64px" fontSize="lg">
        <Link to="/">Back to the round</Link>
      </Button>
    </Flex>
  )
}
