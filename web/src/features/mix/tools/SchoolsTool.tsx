import { Box, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { DataTable } from "../../../ui/DataTable"
import { Loaded } from "../../../ui/Page"
import { Choose } from "../../../ui/EntryRow"
import type { ToolProps } from "./Panels"
import { SchoolForm } from "./SchoolForm"
import { Row } from "./SchoolRow"

/** The schools side by side on one pot and water; the product names no winner. */
export function SchoolsTool({ page, waters, draft }: ToolProps) {
  const [pot, setPot] = useState("")
  const [water, setWater] = useState(String(draft.water_id))
  const [editing, setEditing] = useState<Schemas["SchoolOut"] | null>(null)
  const ids = page.schools.map((s) => s.school.id)
  const query = useQuery({
    queryKey: ["schools", ids, page.schools.map((s) => s.copy_id), pot, water],
    queryFn: () =>
      answer(
        client.POST("/api/mix/schools/load", {
          body: { school_ids: ids, pot_id: pot ? Number(pot) : null, water_id: Number(water) },
        }),
      ),
  })
  return (
    <>
      <Box
        display="flex"
        gap="3"
        flexWrap="wrap"
        maxW="640px"
        css={{ "& > *": { flex: "1 1 220px" } }}
      >
        <Choose label="On this pot" value={pot} onChange={setPot}>
          <option value="">a litre of medium bark</option>
          {page.pots.map((p) => (
            <option key={p.id} value={p.id}>
              {p.code} {p.name}
            </option>
          ))}
        </Choose>
        <Choose label="With this water" value={water} onChange={setWater}>
          {waters.map((w) => (
            <option key={w.id} value={w.id}>
              {w.name}
            </option>
          ))}
        </Choose>
      </Box>
      {editing && (
        <SchoolForm key={editing.school.id} school={editing} onClose={() => setEditing(null)} />
      )}
      <Loaded query={query}>
        {(loads) => (
          <DataTable
            label="Schools"
            head={[
              "School",
              "Feed",
              "mg N for a litre of pot, a week",
              "Root zone it tends to",
              "In favour, and against",
              "",
            ]}
            minW="900px"
          >
            {page.schools.map((s) => (
              <Row
                key={s.school.id}
                row={s}
                load={loads.find((l) => l.id === s.school.id)?.load}
                onEdit={() => setEditing(s)}
              />
            ))}
          </DataTable>
        )}
      </Loaded>
      <Text fontSize="sm" color="fg.muted" mt="2">
        To compare schools; one pot may differ by a quarter down or two fifths up. Growers of equal
        skill differ: none of these is the winner.
      </Text>
    </>
  )
}
