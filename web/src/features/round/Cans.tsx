import { Text } from "@chakra-ui/react"
import { useDeferredValue } from "react"
import type { Schemas } from "../../api/client"
import { MoreRows } from "../../ui/MoreRows"
import { Card } from "../../ui/Page"
import { useRowsHere } from "../../ui/useRowsHere"
import { CanCard } from "./CanCard"

const AT_ONCE = 20

/** The cans of a round, in the order they are walked. */
export function Cans({ page: { plan, left } }: { page: Schemas["RoundPage"] }) {
  const rows = useRowsHere(plan.cans, AT_ONCE, left.cans)
  const drawn = useDeferredValue(true, false) // a phone shows no more than the first at first
  if (plan.cans.length === 0)
    return (
      <Card>
        <Text>No can today.</Text>
      </Card>
    )
  return (
    <>
      {rows.shown.slice(0, drawn ? undefined : 1).map((can) => (
        <CanCard key={can.letter} can={can} missing={left.pots[can.letter]} />
      ))}
      <MoreRows auto left={rows.left} query={rows.query} />
    </>
  )
}
