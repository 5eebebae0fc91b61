import { Box, Text } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { Entry } from "../../ui/Entry"

const SHOWN = 60

/** Pots that may take part, found by code, name or kind and ticked. */
export function PotsChosen({
  pots,
  chosen,
  onChosen,
}: {
  pots: Schemas["PotName"][]
  chosen: number[]
  onChosen: (ids: number[]) => void
}) {
  const [find, setFind] = useState("")
  const words = find.toLowerCase()
  const found = pots.filter(
    (p) =>
      chosen.includes(p.id) ||
      `${p.code} ${p.name} ${p.profile} ${p.place}`.toLowerCase().includes(words),
  )
  const toggle = (id: number) =>
    onChosen(chosen.includes(id) ? chosen.filter((x) => x !== id) : [...chosen, id])
  return (
    <Box asChild mt="3">
      <fieldset>
        <Box asChild fontSize="sm" fontWeight="semibold">
          <legend>Plants that may take part: {chosen.length} chosen</legend>
        </Box>
        <Entry label="Find by code, name, kind or place" value={find} onValue={setFind} w="280px" />
        <Box
          mt="2"
          maxH="230px"
          overflowY="auto"
          display="grid"
          gridTemplateColumns="repeat(auto-fill, minmax(210px, 1fr))"
          columnGap="3"
        >
          {found.slice(0, SHOWN).map((p) => (
            <label
              key={p.id}
              style={{ display: "flex", gap: 10, alignItems: "center", minHeight: 44 }}
            >
              <input
                type="checkbox"
                style={{ width: 20, height: 20 }}
                checked={chosen.includes(p.id)}
                onChange={() => toggle(p.id)}
              />
              <span>
                {p.code} {p.name}
              </span>
            </label>
          ))}
        </Box>
        {found.length > SHOWN && (
          <Text fontSize="sm" color="fg.muted">
            {found.length - SHOWN} more: type to find them.
          </Text>
        )}
      </fieldset>
    </Box>
  )
}
