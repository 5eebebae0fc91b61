import { Button, Flex } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link, Navigate } from "react-router"
import { Loaded, Teach } from "../../ui/Page"
import { startQuery } from "../../api/queries"

/** No pot yet: an empty collection opens on the start page, one that has begun is told what is missing. */
export function EmptyRound() {
  return (
    <Loaded query={useQuery(startQuery)}>
      {(start) => (start.empty ? <Navigate to="/start" replace /> : <Begun />)}
    </Loaded>
  )
}

function Begun() {
  return (
    <Teach
      action={
        <Flex gap="2" wrap="wrap">
          <Button asChild minH="44px">
            <Link to="/pots">Add pots</Link>
          </Button>
          <Button asChild variant="outline" minH="44px">
            <Link to="/water">Add a water</Link>
          </Button>
          <Button asChild variant="outline" minH="44px">
            <Link to="/sums">Only a quick sum</Link>
          </Button>
        </Flex>
      }
    >
      This is the day’s list. It fills once Fenwa knows a water and a pot.
    </Teach>
  )
}
