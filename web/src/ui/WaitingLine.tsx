import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState, useSyncExternalStore } from "react"
import {
  drop,
  type Entry,
  heldBy,
  isOutside,
  send,
  sendAgain,
  subscribe,
  waiting,
} from "../api/outbox"
import { ReviseEntry, canBeEdited } from "./ReviseEntry"

/** What waits in this browser for Fenwa; what was set apart with its reason and the ways out. */
export function WaitingLine() {
  const entries = useSyncExternalStore(subscribe, waiting)
  const outside = useSyncExternalStore(subscribe, isOutside)
  if (entries.length === 0) return null
  const apart = entries.filter((e) => e.problem || heldBy(e))
  const rest = entries.length - apart.length
  return (
    <Box
      role="status"
      borderWidth="1px"
      borderColor="state.caution"
      borderRadius="lg"
      p="3"
      mb="3"
      bg="bg.panel"
    >
      {rest > 0 && (
        <Flex justify="space-between" gap="3" align="center">
          <Text fontSize="sm">
            {rest} {rest === 1 ? "entry waits" : "entries wait"} in this browser until{" "}
            {outside ? "you sign in again" : "Fenwa answers"}.
          </Text>
          {outside ? (
            <Button asChild size="sm" minH="40px" variant="outline">
              <a href="/sign-in">Sign in</a>
            </Button>
          ) : (
            <Button size="sm" minH="40px" variant="outline" onClick={() => void send()}>
              Send now
            </Button>
          )}
        </Flex>
      )}
      {apart.map((e) => (
        <SetApart key={e.key} entry={e} />
      ))}
    </Box>
  )
}

const REASON = {
  "set apart":
    "The can it was poured from has not been taken yet. It follows as soon as the can is.",
  deleted:
    "The can it was poured from was deleted before Fenwa had it. Enter the pour anew, and delete this one.",
}

/** One entry that was not taken: why, and Edit, Send again, Delete. */
function SetApart({ entry }: { entry: Entry }) {
  const [editing, setEditing] = useState(false)
  const held = heldBy(entry)
  return (
    <Box mt="2">
      <Text>
        <b>{entry.title}</b> was not taken. {held ? REASON[held] : entry.problem}
      </Text>
      {editing ? (
        <ReviseEntry entry={entry} onClose={() => setEditing(false)} />
      ) : (
        <Flex gap="2" mt="1" wrap="wrap" role="group" aria-label={entry.title}>
          {!held && canBeEdited(entry) && (
            <Button minH="44px" variant="outline" onClick={() => setEditing(true)}>
              Edit
            </Button>
          )}
          {!held && (
            <Button minH="44px" variant="outline" onClick={() => void sendAgain(entry.key)}>
              Send again
            </Button>
          )}
          <Button minH="44px" variant="outline" onClick={() => void drop(entry.key)}>
            Delete
          </Button>
        </Flex>
      )}
    </Box>
  )
}
