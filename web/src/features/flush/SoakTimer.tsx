import { Box, Flex, Text } from "@chakra-ui/react"
import { useEffect, useState } from "react"

/** Minutes of soak left, counted from when the pass was poured: a reload, or a dark screen, changes nothing. */
export function SoakTimer({ since, minutes }: { since: string; minutes: number }) {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const t = setInterval(() => setNow(Date.now()), 1000)
    return () => clearInterval(t)
  }, [])
  const all = minutes * 60_000
  const left = Math.max(0, Date.parse(since) + all - now)
  const share = all > 0 ? 1 - left / all : 1
  const seconds = Math.ceil(left / 1000)
  return (
    <Flex
      borderWidth="1px"
      borderRadius="lg"
      p="3"
      mt="3"
      gap="4"
      align="center"
      bg="bg.subtle"
      role="timer"
      aria-label={left > 0 ? `Soak, ${Math.ceil(seconds / 60)} minutes left` : "Soaked"}
    >
      <Box>
        <Text fontSize="1.8rem" fontWeight="bold" lineHeight="1.1">
          {left > 0
            ? `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`
            : "Soaked"}
        </Text>
        <Text color="fg.muted" fontSize="sm">
          {left > 0 ? `soak left of ${Math.round(minutes)} min` : "pour the next pass"}
        </Text>
      </Box>
      <Box flex="1" h="12px" borderRadius="6px" borderWidth="1px" overflow="hidden" aria-hidden>
        <Box h="100%" w={`${Math.round(share * 100)}%`} bg="comfort" />
      </Box>
    </Flex>
  )
}
