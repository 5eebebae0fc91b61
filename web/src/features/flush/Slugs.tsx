import { numberIn } from "../../ui/format"
import { Box, Flex } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { saltColour } from "../../app/ramp"

/** Each pass as a slug: poured ones in the colour of their runoff, waiting ones hatched, coming ones hollow. */
export function Slugs({ f, unsent }: { f: Schemas["FlushOut"]; unsent: number }) {
  const live = f.live.result
  const coming =
    live.stop || f.ended_as || live.left_L === null
      ? 0
      : Math.min(3, Math.ceil(live.left_L / f.round_L))
  const done = f.passes.length
  return (
    <Flex gap="1" mt="1" role="list" aria-label="Passes">
      {f.passes.map((p, i) => (
        <Slug
          key={p.id}
          n={i + 1}
          words={`poured, ${p.runoff_uS_cm === null ? "not read" : `runoff ${numberIn(p.runoff_uS_cm, "µS/cm")}`}`}
          bg={p.runoff_uS_cm === null ? "bg.subtle" : saltColour(p.runoff_uS_cm)}
        />
      ))}
      {Array.from({ length: unsent }, (_, i) => (
        <Slug
          key={`u${i}`}
          n={done + i + 1}
          words="poured, waits to be sent"
          bg="bg.subtle"
          dashed
        />
      ))}
      {Array.from({ length: coming }, (_, i) => (
        <Slug key={`c${i}`} n={done + unsent + i + 1} words="to come" dashed />
      ))}
    </Flex>
  )
}

function Slug({
  n,
  words,
  bg,
  dashed,
}: {
  n: number
  words: string
  bg?: string
  dashed?: boolean
}) {
  return (
    <Box
      role="listitem"
      aria-label={`Pass ${n}: ${words}`}
      flex="1"
      maxW="56px"
      textAlign="center"
      borderWidth="1.5px"
      borderStyle={dashed ? "dashed" : "solid"}
      borderColor="fg"
      borderRadius="4px"
      fontWeight="semibold"
      fontSize="sm"
      bg={bg}
    >
      <Box as="span" bg="bg.panel" borderRadius="full" px="1.5">
        {n}
      </Box>
    </Box>
  )
}
