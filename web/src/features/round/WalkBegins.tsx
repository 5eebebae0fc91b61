import { Button, Flex, Heading, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useEffect, useState } from "react"
import { roundQuery } from "../../api/queries"
import { Loaded } from "../../ui/Page"
import { wholeDay } from "../../ui/format"
import { WaitingLine } from "../../ui/WaitingLine"
import { newWalk, type Walk as WalkState } from "./walk"
import { NextButton } from "./NextButton"

/** The day's list, frozen when the walk begins: logging pours must not move it. */
export function Begin({ onBegin }: { onBegin: (walk: WalkState) => void }) {
  const query = useQuery({ ...roundQuery, staleTime: 0 })
  const page = query.isFetching ? undefined : query.data
  useEffect(() => {
    if (page) onBegin(newWalk(page))
  }, [page, onBegin])
  return <Loaded query={query}>{() => <Text role="status">One moment.</Text>}</Loaded>
}

export function GoOn({ left, onChoose }: { left: WalkState; onChoose: (walk: WalkState) => void }) {
  const [anew, setAnew] = useState(false)
  if (anew) return <Begin onBegin={onChoose} />
  return (
    <Flex direction="column" flex="1" gap="4" mt="10">
      <Heading as="h1" size="2xl">
        A round is half walked
      </Heading>
      <Text fontSize="lg">
        {left.done.length} of {left.page.plan.pots_due} pots poured, by the list of{" "}
        {wholeDay(left.page.today)}.
      </Text>
      <WaitingLine />
      <Flex direction="column" gap="4" mt="auto">
        <NextButton onClick={() => onChoose(left)}>Go on where it was</NextButton>
        <Button variant="outline" minH="56px" onClick={() => setAnew(true)}>
          Begin with today’s list
        </Button>
      </Flex>
    </Flex>
  )
}
