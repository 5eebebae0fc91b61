import { Box, Button, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { PourPanel } from "./PourPanel"

/** A pour of plain water at this pot. */
export function PourHere({ page, onClose }: { page: Schemas["PotPage"]; onClose: () => void }) {
  const { row } = page
  const water =
    page.pour_water_id === null ? null : { id: page.pour_water_id, name: page.pour_water }
  return (
    <Box mb="4">
      {water ? (
        <PourPanel
          pots={[{ id: row.id, code: row.code, name: row.name, volume_L: row.volume_L }]}
          chosen={[row.id]}
          today={page.today}
          source={{ kind: "water", id: water.id, name: water.name }}
        />
      ) : (
        <Text>{page.water_note || "Add a water at the Water station first."}</Text>
      )}
      {water && (
        <Text fontSize="sm" color="fg.muted" mt="1">
          {page.water_note} Pours {water.name}, nothing added. A feed is poured from its can at the
          Mix station.
        </Text>
      )}
      <Button variant="outline" mt="2" data-back onClick={onClose}>
        Close
      </Button>
    </Box>
  )
}
