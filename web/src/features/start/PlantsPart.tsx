import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { PotsLine } from "../pots/PotsLine"
import type { Answers, Change, Drawn } from "./answers"
import { Question } from "./Question"

/** What do you grow: line by line, each as it was understood. */
export function PlantsPart({
  answers,
  drawn,
  change,
}: {
  answers: Answers
  drawn?: Drawn
  change: Change
}) {
  const [round, setRound] = useState(0)
  const without = (i: number) => answers.lines.filter((_, k) => k !== i)
  return (
    <Question n={1} title="What do you grow?">
      <PotsLine
        key={round}
        label="One line, as you would say it"
        onAdd={(said, line, clear) => {
          const kind = said.choices.length > 0 ? said.said.result.kind : ""
          change({ lines: [...answers.lines, { line, kind }] })
          clear()
        }}
      />
      <Box as="ul" listStyleType="none" mt="2" aria-label="Pots to add">
        {drawn?.lines.slice(0, answers.lines.length).map((x, i) => (
          <Flex as="li" key={`${x.codes} ${x.line}`} gap="3" align="center" minH="44px">
            <Text fontWeight="semibold" minW="96px">
              {x.codes}
            </Text>
            <Box flex="1" minW="0">
              <Text>{x.pots.kind_name}</Text>
              <Text fontSize="xs" color="fg.muted">
                “{x.line}”
              </Text>
            </Box>
            <Button
              size="sm"
              minH="44px"
              variant="ghost"
              aria-label={`Delete ${x.codes}`}
              onClick={() => {
                change({ lines: without(i) })
                setRound(round + 1)
              }}
            >
              Delete
            </Button>
          </Flex>
        ))}
      </Box>
      <Text fontSize="xs" color="fg.muted">
        No name? Type “1 unknown”: it drinks the purest.
      </Text>
    </Question>
  )
}
