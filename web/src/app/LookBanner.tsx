import { Button, Flex, Text } from "@chakra-ui/react"
import { useMutation } from "@tanstack/react-query"
import { useEffect } from "react"
import { goBack, looking, reloadWhenSwitched } from "../api/collection"

/** Says that what is shown is the demonstration, and leads back. */
export function LookBanner() {
  const back = useMutation({ mutationFn: goBack })
  useEffect(reloadWhenSwitched, [])
  if (!looking()) return null
  return (
    <Flex
      role="status"
      bg="bg.subtle"
      borderBottomWidth="1px"
      px={{ base: "4", md: "6" }}
      py="2"
      gap="3"
      align="center"
      justify="space-between"
      wrap="wrap"
    >
      <Text fontSize="sm">
        This is the demonstration, an invented collection. Yours is as you left it.
        {back.error && <b> {back.error.message}</b>}
      </Text>
      <Button
        size="sm"
        minH="44px"
        variant="outline"
        loading={back.isPending}
        onClick={() => back.mutate()}
      >
        Back to my collection
      </Button>
    </Flex>
  )
}
