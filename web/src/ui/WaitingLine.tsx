import { Box, Button, Flex, Input, Text } from "@chakra-ui/react"
import { useState, useSyncExternalStore } from "react"
import { drop, type Entry, isOutside, send, subscribe, waiting, withWord } from "../api/outbox"

/** What is kept in this browser and not yet in Fenwa; refused writes with their sentence and a way out. */
export function WaitingLine() {
  const entries = useSyncExternalStore(subscribe, waiting)
  const outside = useSyncExternalStore(subscribe, isOutside)
  const refused = entries.filter((e) => e.problem)
  const rest = entries.length - refused.length
  if (entries.length === 0) return null
  return (
    <Box role="status" borderWidth="1px" borderColor="state.caution" borderRadius="lg" p="3" mb="3" bg="bg.panel">
      {rest > 0 && (
        <Flex justify="space-between" gap="3" align="center">
          <Text fontSize="sm">{rest} {rest === 1 ? "entry waits" : "entries wait"} in this browser until {outside ? "you sign in again" : "Fenwa answers"}.</Text>
          {outside ? <Button asChild size="sm" minH="40px" variant="outline"><a href="/sign-in">Sign in</a></Button> : <Button size="sm" minH="40px" variant="outline" onClick={() => void send()}>Send now</Button>}
        </Flex>
      )}
      {refused.map((e) => <Refused key={e.key} entry={e} />)}
    </Box>
  )
}

function Refused({ entry }: { entry: Entry }) {
  const [note, setNote] = useState("")
  return (
    <Box mt="2">
      <Text><b>{entry.title}</b> was not taken. {entry.problem}</Text>
      <Flex gap="2" mt="1" wrap="wrap">
        {"note" in entry.body && <Input aria-label={`Word for ${entry.title}`} value={note} onChange={(e) => setNote(e.target.value)} maxW="220px" minH="44px" bg="bg.panel" />}
        {"note" in entry.body && <Button minH="44px" variant="outline" disabled={!note.trim()} onClick={() => void withWord(entry.key, note)}>Send with this word</Button>}
        <Button minH="44px" variant="outline" onClick={() => void drop(entry.key)}>Let it go</Button>
      </Flex>
    </Box>
  )
}
