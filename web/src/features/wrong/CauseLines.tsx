import { Box, Text } from "@chakra-ui/react"
import { day } from "../../ui/format"
import { Disc } from "../../ui/Signs"
import { Letter } from "./Letter"
import type { Letters } from "./letters"
import type { Likely } from "./queries"

const PIECES = 4

/** A cause in words, with what speaks for it and against it; each dated piece with its letter. */
export function CauseLines({
  cause,
  first,
  letters,
  today,
}: {
  cause: Likely
  first: boolean
  letters: Letters
  today: string
}) {
  const lines = [
    { word: "for", color: "state.good", pieces: cause.speaks_for },
    { word: "but", color: "state.caution", pieces: cause.speaks_against },
  ]
  return (
    <Box borderTopWidth="1px" py="2">
      <Text fontWeight="semibold">
        <Disc full={first} /> {cause.name}{" "}
        <Box as="span" fontWeight="normal" color="fg.muted">
          {cause.word}
        </Box>
      </Text>
      {lines.map(
        (l) =>
          l.pieces.length > 0 && (
            <Text key={l.word} fontSize="sm" pl="4">
              <Box as="span" color={l.color} fontWeight="semibold">
                {l.word}{" "}
              </Box>
              {l.pieces.slice(0, PIECES).map((p, i) => (
                <Box as="span" key={`${p.words}${p.on}`}>
                  {i > 0 && "; "}
                  {p.words}
                  {p.on && <Box as="span" color="fg.muted">{`, ${day(p.on, today)}`}</Box>}
                  {p.on && letters.get(p.on) && <Letter of={letters.get(p.on) ?? ""} />}
                </Box>
              ))}
              {l.pieces.length > PIECES && ` and ${l.pieces.length - PIECES} more`}
            </Text>
          ),
      )}
    </Box>
  )
}
