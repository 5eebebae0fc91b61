import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { memo } from "react"
import type { Schemas } from "../../api/client"

type FeelProps = {
  can: Schemas["Can"]
  why: string
  plain: boolean
  onPlain: () => void
  onLeave: () => void
}

/** The hand decides before the plan: dry gets plain water, heavy is left. */
export const FeelFirst = memo(function FeelFirst({ can, why, plain, onPlain, onLeave }: FeelProps) {
  return (
    <Box bg="bg.inset" borderWidth="1px" borderRadius="lg" p="3" mt="4">
      {why && can.job !== "flush" && (
        <Text mb="1">
          <b>{why}</b>
        </Text>
      )}
      <Text>
        <b>Feel first.</b>{" "}
        {can.job === "feed"
          ? "If the pot is light and the medium dry, give plain water today."
          : "If the pot is still heavy, leave it."}
      </Text>
      <Flex gap="2.5" mt="2" wrap="wrap">
        {can.job === "feed" && (
          <Button
            data-key="p"
            type="button"
            size="sm"
            minH="44px"
            variant={plain ? "solid" : "outline"}
            aria-pressed={plain}
            onClick={onPlain}
          >
            Dry: plain water
          </Button>
        )}
        <Button
          data-key="s"
          type="button"
          size="sm"
          minH="44px"
          variant="outline"
          onClick={onLeave}
        >
          Still heavy: skip
        </Button>
      </Flex>
    </Box>
  )
})
