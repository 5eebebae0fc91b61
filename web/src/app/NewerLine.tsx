import { Button, Flex, Text } from "@chakra-ui/react"
import { useSyncExternalStore } from "react"
import { isFresh, showFresh, subscribeFresh } from "./fresh"

/** A newer interface has been fetched: shown when the hand is free, never under it. */
export function NewerLine() {
  const fresh = useSyncExternalStore(subscribeFresh, isFresh)
  if (!fresh) return null
  return (
    <Flex role="status" gap="3" align="center" justify="space-between" mb="3" wrap="wrap">
      <Text fontSize="sm">
        A newer version of Fenwa is here. What you have typed is lost by it.
      </Text>
      <Button size="sm" minH="44px" variant="outline" onClick={showFresh}>
        Show it now
      </Button>
    </Flex>
  )
}
