import { Box, Button, Flex } from "@chakra-ui/react"
import { NextButton } from "./NextButton"

/** Poured, back, or on without keeping anything. */
export function PourFoot({
  pending,
  onNext,
  onBack,
}: {
  pending: boolean
  onNext: () => void
  onBack: (() => void) | undefined
}) {
  return (
    <Box mt="auto" pt="5">
      <NextButton type="submit" pending={pending}>
        Poured
      </NextButton>
      <Flex gap="2" mt="1">
        {onBack && (
          <Button data-key="b" type="button" variant="ghost" flex="1" minH="44px" onClick={onBack}>
            Back one step
          </Button>
        )}
        <Button data-key="n" type="button" variant="ghost" flex="1" minH="44px" onClick={onNext}>
          Skip
        </Button>
      </Flex>
    </Box>
  )
}
