import { Box, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { shelfQuery } from "../../../api/queries"
import { amountOf } from "../../../ui/format"

export function Kept() {
  const measures = useQuery(shelfQuery).data?.measures ?? []
  if (measures.length === 0) return null
  return (
    <Box mt="4">
      <Text fontWeight="semibold">Your measures</Text>
      {measures.map((m) => (
        <Flex key={m.id} justify="space-between" borderTopWidth="1px" py="1.5" gap="3">
          <Text>
            {m.name}, {m.product}
          </Text>
          <Text whiteSpace="nowrap">{amountOf(m.each, m.unit)}</Text>
        </Flex>
      ))}
    </Box>
  )
}
