import { Box, Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { mixQuery } from "../../api/queries"
import { Choose, EntryRow } from "../../ui/EntryRow"
import { keepAnswers, lastAnswers } from "../../ui/lastAnswers"
import { PourPanel, type PourSource } from "./PourPanel"

const LAST = "pour" // what was typed last is the next default

/** A pour at this pot: the water its plan would take, another one, a can that has some left, or a
 * feed by its label and strength. */
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
  const [share, setShare] = useState(() => lastAnswers(LAST).strength ?? "half")
  const feeds = (mix?.products ?? []).filter((p) => p.owned)
  const feed = feeds.find((p) => `feed ${p.id}` === chosen)
  const water = page.pour_water_id ?? mix?.waters[0]?.id
  const strength = (value: string) => {
    setShare(value)
    keepAnswers(LAST, { strength: value })
  }
  const source: (PourSource & { key: string }) | undefined =
    chosen === "else"
      ? { key: "else", kind: "else", name: gave.trim() }
      : feed && water !== undefined
        ? {
            key: chosen,
            kind: "feed",
            name: share.trim(),
            fed: { product_id: feed.id, water_id: water, share },
          }
        : sources.find((x) => x.key === chosen)
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
          {water !== undefined &&
            feeds.map((p) => (
              <option key={p.id} value={`feed ${p.id}`}>
                {p.name}, by its label
              </option>
            ))}
          <option value="else">something else, strength not known</option>
        </Choose>
        {feed && (
          <EntryRow label="Strength" unit="of the label" words value={share} onChange={strength} />
        )}
        {chosen === "else" && (
          <EntryRow label="What it was" unit="" words wide value={gave} onChange={setGave} />
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
