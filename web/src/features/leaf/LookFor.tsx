import { Box, Text } from "@chakra-ui/react"
import { LookForm } from "../pots/LookForm"
import type { PlantLine } from "./queries"

/** A look at one plant, with what was seen last. */
export function LookFor({
  plant,
  today,
  onClose,
}: {
  plant?: PlantLine
  today: string
  onClose: () => void
}) {
  if (!plant) return null
  const last = {
    id: 0,
    on: plant.last_look_on ?? today,
    leaves_count: plant.leaves_count,
    newest_leaf_mm: plant.newest_leaf_mm,
    new_leaf: false,
    marks: plant.marks,
    unknown: [],
    note: "",
  }
  return (
    <Box>
      <Text fontWeight="semibold" mb="1">
        {plant.code} {plant.name}
      </Text>
      <LookForm
        key={plant.pot_id}
        potId={plant.pot_id}
        last={last}
        today={today}
        onClose={onClose}
      />
    </Box>
  )
}
