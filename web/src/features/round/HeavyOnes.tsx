import { Box, Button, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"

/** The pots of a row: a pressed one is still heavy and is left. */
export function HeavyOnes({
  pots,
  heavy,
  setHeavy,
}: {
  pots: Schemas["CanPot"][]
  heavy: number[]
  setHeavy: (ids: number[]) => void
}) {
  return (
    <Box bg="bg.inset" borderWidth="1px" borderRadius="lg" p="3" mt="4">
      <Text>
        <b>Feel first.</b> Press a pot that is still heavy: it is left for another day.
      </Text>
      <Flex gap="2" mt="2" wrap="wrap" role="group" aria-label="Pots of this row">
        {pots.map((p) => {
          const out = heavy.includes(p.pot_id)
          return (
            <Button
              key={p.pot_id}
              type="button"
              size="sm"
              minH="44px"
              variant={out ? "solid" : "outline"}
              aria-pressed={out}
              aria-label={`${p.code} ${p.name}: still heavy`}
              onClick={() =>
                setHeavy(out ? heavy.filter((i) => i !== p.pot_id) : [...heavy, p.pot_id])
              }
            >
              {p.code}
              {out ? ": skip" : ""}
            </Button>
          )
        })}
      </Flex>
    </Box>
  )
}
