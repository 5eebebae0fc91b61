import { Box, Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { DataTable } from "../../../ui/DataTable"
import { figure } from "../../../ui/format"
import { Loaded } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import { Rail } from "../../../ui/Rail"
import { Choose } from "../desk/Entry"
import type { ToolProps } from "./Panels"
import { SchoolForm } from "./SchoolForm"

/** The schools side by side on one pot and water; the product names no winner. */
export function SchoolsTool({ page, waters, draft }: ToolProps) {
  const [pot, setPot] = useState("")
  const [water, setWater] = useState(String(draft.water_id))
  const [editing, setEditing] = useState<Schemas["SchoolOut"] | null>(null)
  const ids = page.schools.map((s) => s.school.id)
  const query = useQuery({
    queryKey: ["schools", ids, page.schools.map((s) => s.copy_id), pot, water],
    queryFn: () => answer(client.POST("/api/mix/schools/load", { body: { school_ids: ids, pot_id: pot ? Number(pot) : null, water_id: Number(water) } })),
  })
  return (
    <>
      <Box display="flex" gap="3" flexWrap="wrap" maxW="640px" css={{ "& > *": { flex: "1 1 220px" } }}>
        <Choose label="On this pot" value={pot} onChange={setPot}>
          <option value="">a litre of medium bark</option>
          {page.pots.map((p) => <option key={p.id} value={p.id}>{p.code} {p.name}</option>)}
        </Choose>
        <Choose label="With this water" value={water} onChange={setWater}>{waters.map((w) => <option key={w.id} value={w.id}>{w.name}</option>)}</Choose>
      </Box>
      {editing && <SchoolForm key={editing.school.id} school={editing} onClose={() => setEditing(null)} />}
      <Loaded query={query}>
        {(loads) => (
          <DataTable label="Schools" head={["School", "Feed", "mg N for a litre of pot, a week", "Root zone it tends to", "In favour, and against", ""]} minW="900px">
            {page.schools.map((s) => <Row key={s.school.id} row={s} load={loads.find((l) => l.id === s.school.id)?.load} onEdit={() => setEditing(s)} />)}
          </DataTable>
        )}
      </Loaded>
      <Text fontSize="sm" color="fg.muted" mt="2">To compare schools; one pot may differ by a quarter down or two fifths up. Growers of equal skill differ: none of these is the winner.</Text>
    </>
  )
}

function Row({ row, load, onEdit }: { row: Schemas["SchoolOut"]; load?: Schemas["Computed_SchoolLoad_"]; onEdit: () => void }) {
  const s = row.school
  const r = load?.result
  const here = load && { kind: "here" as const, working: load.working }
  const feed = s.prill_g_L > 0 ? `${s.prill_g_L} g/L prills, ${s.prill_days} days` : s.feeds > 0 ? `${figure(s.n_mg_L, 3)} mg/L N, ${s.feeds} of ${s.cycle} ${s.route === "leaf" ? "days" : "waterings"}` : "nothing dissolved"
  return (
    <tr>
      <td><b>{s.name}</b>{row.edited ? " (mine)" : ""}<br /><Text as="span" color="fg.muted">{s.definition}</Text></td>
      <td>{feed}</td>
      <td>{r?.leaf_mg_week != null ? <><Quantity label={`${s.name}: on the leaves`} value={r.leaf_mg_week} unit="mg on the leaves" working={here} /></> : <><Quantity label={`${s.name}: applied`} value={r?.applied_mg_L_week} unit="applied" working={here} />{r?.retained_mg_L_week != null ? `, ${figure(r.retained_mg_L_week, 2)} kept` : ""}</>}</td>
      <td style={{ minWidth: 170 }}>{r?.root_mean_uS_cm != null ? <><Quantity label={`${s.name}: root zone`} kind="ec" value={r.root_mean_uS_cm} low={r.root_low_uS_cm} high={r.root_high_uS_cm} working={here} /><Rail label={`${s.name}: root zone ${Math.round(r.root_mean_uS_cm)} µS/cm`} value={r.root_mean_uS_cm} low={r.root_low_uS_cm} high={r.root_high_uS_cm} width={160} /></> : "the water’s own"}</td>
      <td>{s.in_favour}<br /><Text as="span" color="fg.muted">But: {s.against}</Text></td>
      <td><Button size="sm" variant="outline" minH="40px" aria-label={`Edit ${s.name}`} onClick={onEdit}>Edit</Button></td>
    </tr>
  )
}
