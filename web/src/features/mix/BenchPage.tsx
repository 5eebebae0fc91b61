import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { type ReactNode, useState } from "react"
import { PageHead } from "../../ui/Page"
import { BenchLine } from "./desk/BenchLine"
import type { Answer } from "./draft"

/** The weighing list for the bench: large, ticked with one thumb, in mixing order. */
export function BenchPage({
  answer,
  title,
  onBack,
  children,
}: {
  answer: Answer
  title: string
  onBack: () => void
  children: ReactNode
}) {
  const [done, setDone] = useState<Set<number>>(new Set())
  const toggle = (i: number) =>
    setDone((was) => {
      const now = new Set(was)
      if (now.has(i)) now.delete(i)
      else now.add(i)
      return now
    })
  return (
    <Box maxW="560px" mx="auto">
      <PageHead
        title="Weighing list"
        line={`${title}. Tick each step; ${done.size} of ${answer.bench.length} done.`}
      >
        <Button data-screen-only variant="outline" minH="48px" onClick={() => window.print()}>
          Print
        </Button>
        <Button data-screen-only data-back variant="outline" minH="48px" onClick={onBack}>
          Back to the can
        </Button>
      </PageHead>
      <Box as="ol" listStyleType="none" aria-label="Weighing list">
        {answer.bench.map((step, i) => (
          <Box as="li" key={i} borderTopWidth="1px">
            <Flex
              asChild
              gap="4"
              align="center"
              minH="88px"
              py="3"
              cursor="pointer"
              opacity={done.has(i) ? 0.55 : 1}
              fontSize="lg"
            >
              <label>
                <input
                  type="checkbox"
                  checked={done.has(i)}
                  onChange={() => toggle(i)}
                  style={{ width: 34, height: 34, flexShrink: 0 }}
                />
                <Box as="span">
                  <BenchLine step={step} large />
                </Box>
              </label>
            </Flex>
          </Box>
        ))}
      </Box>
      <Text color="fg.muted" my="3">
        The product’s label and local rules come first. Label the can; keep feed from children, pets
        and food vessels.
      </Text>
      <Flex
        direction="column"
        css={{ "& > button": { width: "100%", minHeight: "64px", fontSize: "lg" } }}
      >
        {children}
      </Flex>
    </Box>
  )
}
