import { Box, Flex, Text } from "@chakra-ui/react"
import { day } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Grade } from "./Grade"
import type { Chosen } from "./queries"
import { range } from "./words"

/** The word, what else changed, and what would make it stronger. */
export function AnswerCards({
  chosen,
  today,
  code,
}: {
  chosen: Chosen
  today: string
  code: string
}) {
  const r = chosen.answer.result
  const others = [...r.one_sided, ...r.shared].sort((a, b) => (a.on < b.on ? -1 : 1))
  const whose = {
    one: `${code} only: cannot be told from it.`,
    twin: "Its twin only.",
    both: "Both: cancels.",
  }
  return (
    <Flex direction="column" gap="4">
      <Card title={r.headline}>
        <Grade grade={r.grade} />
        <Text mt="2" fontWeight="semibold">
          {r.sentence}
        </Text>
        {r.because.map((b) => (
          <Text key={b} color="fg.muted" fontSize="sm">
            {b}
          </Text>
        ))}
      </Card>
      <Card title="What else changed">
        {others.length === 0 && <Text color="fg.muted">Nothing that was logged.</Text>}
        {others.map((o) => (
          <Flex key={`${o.on}${o.words}${o.whose}`} gap="3" borderTopWidth="1px" py="1.5">
            <Text color="fg.muted" flex="0 0 62px" fontSize="sm">
              {day(o.on, today)}
            </Text>
            <Text>
              {o.words}.{" "}
              <Box as="span" color={o.whose === "both" ? "fg.muted" : "state.caution"}>
                {r.against === "twin" ? whose[o.whose ?? "both"] : "No twin: it may be this."}
              </Box>
            </Text>
          </Flex>
        ))}
      </Card>
      <Card title="What would make it stronger">
        <Text fontSize="sm" color="fg.muted">
          and how narrow the answer would be if it said the same
        </Text>
        {r.stronger.map((s) => (
          <Flex key={s.what} justify="space-between" gap="3" borderTopWidth="1px" py="1.5">
            <Text>{s.what}</Text>
            <Text whiteSpace="nowrap">
              {s.low_shown === null
                ? "costs nothing"
                : range(s.low_shown, s.high_shown, chosen.unit)}
            </Text>
          </Flex>
        ))}
      </Card>
    </Flex>
  )
}
