import { Flex, Heading, Text } from "@chakra-ui/react"
import { memo } from "react"
import type { Schemas } from "../../api/client"
import { figure } from "../../ui/format"

/** Which pot it is, how much it gets and of what. */
export const PourHead = memo(function PourHead({
  pot,
  amount,
  word,
}: {
  pot: Schemas["CanPot"]
  amount: number
  word: string
}) {
  return (
    <>
      <Heading as="h1" fontSize="2.1rem" lineHeight="1.15" mt="2">
        {pot.code}
        <br />
        {pot.name}
      </Heading>
      <Text color="fg.muted" fontSize="lg">
        {pot.place}
        {pot.isolated ? " · isolated: clean hands before and after" : ""}
      </Text>
      <Flex align="baseline" gap="2" mt="4">
        <Text as="output" aria-live="polite" fontSize="64px" lineHeight="1" fontWeight="bold">
          {figure(amount)}
        </Text>
        <Text fontSize="2xl" fontWeight="semibold">
          mL
        </Text>
        <Text ml="auto" color="fg.muted" fontSize="lg">
          {word}
        </Text>
      </Flex>
    </>
  )
})
