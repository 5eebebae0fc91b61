import { Box, Button, Heading, Text } from "@chakra-ui/react"
import { Link, useRouteError } from "react-router"

/** What a visitor sees when a page cannot be shown. */
export function RouteProblem() {
  const error = useRouteError()
  const missing =
    typeof error === "object" && error !== null && "status" in error && error.status === 404
  return (
    <Box as="main" p="6" maxW="640px" mx="auto">
      <Heading as="h1" size="lg">
        {missing ? "There is no such page" : "This page could not be shown"}
      </Heading>
      <Text my="3">Nothing that was stored is lost.</Text>
      <Button asChild>
        <Link to="/">Back to the round</Link>
      </Button>
    </Box>
  )
}
