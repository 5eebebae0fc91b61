import { moment } from "./format"
import { Text } from "@chakra-ui/react"
import { useSyncExternalStore } from "react"
import { seenAt, subscribeSeen } from "../api/lastKnown"

/** Says that Fenwa is out of reach, and of when what is shown is. */
export function SeenLine() {
  const at = useSyncExternalStore(subscribeSeen, seenAt)
  if (at === null) return null
  const when = moment(new Date(at))
  return (
    <Text role="status" color="state.caution" mb="3">
      Fenwa is out of reach. What is shown was last seen on {when}; what you enter is kept here and
      sent later.
    </Text>
  )
}
