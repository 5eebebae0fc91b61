import { Box, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { amount, capital, figure } from "../../ui/format"
import { Quantity } from "../../ui/Quantity"
import { WayDrawing } from "./WayDrawing"

/** One way to flush, drawn: its water, its time, what it leaves and what it risks. */
export function WayRow({
  way: w,
  found,
}: {
  way: Schemas["FlushWay"]
  found: Schemas["Computed_FlushMethods_"]
}) {
  return (
    <Box borderTopWidth="1px" py="2" opacity={w.possible ? 1 : 0.7}>
      <Flex justify="space-between" gap="3" align="baseline" wrap="wrap">
        <Text fontWeight="semibold">{capital(w.way)}</Text>
        {w.possible && (
          <Text>
            <Quantity
              label={`Water for ${w.way}`}
              kind="volume"
              value={w.litres}
              working={{ kind: "here", working: found.working }}
            />
            , {time(w.minutes, w.days)}
          </Text>
        )}
      </Flex>
      {w.possible && <WayDrawing way={w} pause={found.result.plan.pause_min} />}
      <Text fontSize="sm">{w.sentence}</Text>
      {w.possible && (
        <Text fontSize="sm" color="fg.muted">
          {w.reading_after_uS_cm !== null &&
            `Then about ${amount(w.reading_after_uS_cm, "µS/cm")}. `}
          {w.risk}
        </Text>
      )}
    </Box>
  )
}

const time = (minutes: number, days: number) =>
  days > 1
    ? `${days} days`
    : minutes < 90
      ? `${Math.round(minutes)} min`
      : `${figure(minutes / 60, 2)} h`
