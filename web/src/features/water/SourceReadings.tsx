import { Box, Button, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { amount, day } from "../../ui/format"
import { useNotice } from "../../ui/noticeContext"
import { Quantity } from "../../ui/Quantity"
import { useUndo } from "../../ui/useUndo"
type Props = { water: Schemas["WaterOut"]; today: string }

export function Readings({ water, today }: Props) {
  const undo = useUndo()
  const notice = useNotice()
  return (
    <Box as="ul" listStyleType="none" mt="2" fontSize="sm">
      {water.history.slice(0, 4).map((r) => (
        <Flex
          as="li"
          key={r.id}
          justify="space-between"
          align="center"
          py="1"
          borderTopWidth="1px"
          gap="3"
          wrap="wrap"
        >
          <span>{day(r.on, today)}</span>
          <Text as="span" color="fg.muted">
            {r.origin === "pen" ? "pen: " : r.origin === "inbox" ? "logger: " : ""}
            <span data-own-unit>
              {r.value} {r.unit}
            </span>
            {r.scale ? ` (${r.scale === "unknown" ? "scale not known" : `${r.scale} scale`})` : ""}
            {r.temperature_C !== null ? ` at ${amount(r.temperature_C, "°C")}` : ""}
            {r.check_overdue ? ", its meter's check was overdue" : ""}
          </Text>
          <Quantity
            label={`EC at ${amount(25, "°C")}`}
            kind="ec"
            value={r.ec25_uS_cm}
            none="not computed"
          />
          <Button
            size="xs"
            variant="outline"
            aria-label={`Delete the reading of ${day(r.on)}`}
            onClick={() => {
              undo("reading", r.id)
              notice({ text: "Reading deleted.", undo: () => undo("reading", r.id, true) })
            }}
          >
            Delete
          </Button>
        </Flex>
      ))}
    </Box>
  )
}

export function Refused({ reading }: { reading: Schemas["ReadingOut"] }) {
  return (
    <Box role="note" bg="bg.inset" borderRadius="md" p="3" my="2">
      <Text>
        <b>{reading.value} ppm, scale not known.</b> Nothing is computed from it. It could be:
      </Text>
      {Object.entries(reading.possible_uS_cm).map(([scale, ec]) => (
        <Text key={scale}>
          {amount(ec, "µS/cm")} on the {scale} scale
        </Text>
      ))}
    </Box>
  )
}
