import { Box, Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { mixQuery } from "../../api/queries"
import { Choose, Entry } from "../mix/desk/Entry"
import { PourPanel, type PourSource } from "./PourPanel"

/** A pour at this pot: the water its plan would take, another one, or a can that has some left. */
export function PourHere({ page, onClose }: { page: Schemas["PotPage"]; onClose: () => void }) {
  const { row } = page
  const mix = useQuery(mixQuery).data
  const first = page.pour_water_id === null ? "" : `water ${page.pour_water_id}`
  const [chosen, setChosen] = useState(first)
  const sources: (PourSource & { key: string })[] = [
    ...(mix?.batches ?? [])
      .filter((b) => b.left_L > 0)
      .map((b) => ({ key: `batch ${b.id}`, kind: "batch" as const, id: b.id, name: b.name })),
    ...(mix?.waters ?? []).map((w) => ({
      key: `water ${w.id}`,
      kind: "water" as const,
      id: w.id,
      name: `${w.name}, nothing added`,
    })),
  ]
  const [gave, setGave] = useState("")
  const other = { key: "else", kind: "else" as const, name: gave.trim() }
  const source = chosen === "else" ? other : sources.find((x) => x.key === chosen)
  return (
    <Box mb="4">
      {sources.length === 0 && (
        <Text>{page.water_note || "Add a water at the Water station first."}</Text>
      )}
      <Box maxW="420px">
        <Choose label="Pour" value={chosen} onChange={setChosen}>
          {!source && <option value="">choose</option>}
          {sources.map((x) => (
            <option key={x.key} value={x.key}>
              {x.name}
              {x.key === first ? ", as the round would" : ""}
            </option>
          ))}
          <option value="else">something else, strength not known</option>
        </Choose>
        {chosen === "else" && (
          <Entry label="What it was" unit="" words wide value={gave} onChange={setGave} />
        )}
      </Box>
      {source && source.name !== "" && (
        <PourPanel
          key={source.key}
          pots={[{ id: row.id, code: row.code, name: row.name, volume_L: row.volume_L }]}
          chosen={[row.id]}
          today={page.today}
          source={source}
        />
      )}
      {page.water_note && (
        <Text fontSize="sm" color="fg.muted" mt="1">
          {page.water_note}
        </Text>
      )}
      <Button variant="outline" mt="2" data-back onClick={onClose}>
        Close
      </Button>
    </Box>
  )
}
