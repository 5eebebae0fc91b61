import { Box, Button, Flex } from "@chakra-ui/react"

/**
 * Poured, back, or on without keeping anything. To exchange what is pressed for a wheel and back took longer than most
 * entries take to be kept; on a line so slow that it does not, the button fades.
 */
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
      <Button
        data-key="Enter"
        type="submit"
        w="100%"
        minH="72px"
        fontSize="xl"
        aria-busy={pending}
        _loading={{ opacity: 0.5, transition: "opacity 0.1s 0.3s" }}
      >
        Poured
      </Button>
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
