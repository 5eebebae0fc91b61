import { Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Card } from "../../ui/Page"
import { pairQuery } from "./queries"

/** Two plants side by side: only what differs. */
export function PairCard({ potId, beside }: { potId: number; beside: number }) {
  const page = useQuery(pairQuery(potId, beside)).data
  if (!page) return null
  return (
    <Card title="What differs between the two" mt="4">
      {page.seen.lines.map((x) => (
        <Flex key={x.name} gap="3" borderTopWidth="1px" py="1.5" fontSize="sm">
          <Text flex="0 0 96px" color="fg.muted">
            {x.name}
          </Text>
          <Text flex="1" minW="0">
            {x.first}
          </Text>
          <Text flex="1" minW="0">
            {x.second}
          </Text>
        </Flex>
      ))}
      <Text mt="2">{page.seen.sentence}</Text>
    </Card>
  )
}
