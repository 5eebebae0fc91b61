import { Box } from "@chakra-ui/react"
import { Link } from "react-router"
import type { Schemas } from "../../../api/client"
import { DataTable } from "../../../ui/DataTable"
import { Tick } from "../../../ui/Tick"
import { day, figure } from "../../../ui/format"
import { PotRail } from "../../../ui/PotRail"
import { Reading } from "./PotList"

type Props = {
  rows: Schemas["PotRow"][]
  today: string
  chosen: number[]
  onChoose: (ids: number[]) => void
}

/** Pots as a dense table; those ticked are changed or labelled together. */
export function PotTable({ rows, today, chosen, onChoose }: Props) {
  const all = rows.length > 0 && rows.every((r) => chosen.includes(r.id))
  const toggle = (id: number) =>
    onChoose(chosen.includes(id) ? chosen.filter((i) => i !== id) : [...chosen, id])
  return (
    <Box bg="bg.panel" borderWidth="1px" borderRadius="lg" px="3" py="2">
      <Box asChild display="inline-flex" alignItems="center" gap="2" minH="44px" fontSize="sm">
        <label>
          <input
            type="checkbox"
            checked={all}
            onChange={() => onChoose(all ? [] : rows.map((r) => r.id))}
            style={{ width: 20, height: 20 }}
          />
          All {rows.length} shown
        </label>
      </Box>
      <DataTable
        label="Pots"
        head={["", "Pot", "Plants", "Place", "Phase", "Every", "Poured", "Reading", "Room", "Tags"]}
        minW="1080px"
      >
        {rows.map((r) => (
          <tr key={r.id}>
            <td>
              <Tick
                label={`Choose ${r.code}`}
                checked={chosen.includes(r.id)}
                onChange={() => toggle(r.id)}
              />
            </td>
            <td style={{ whiteSpace: "nowrap" }}>
              <Link to={`/pots/${r.id}`} style={{ textDecoration: "underline", fontWeight: 600 }}>
                {r.code}
              </Link>{" "}
              {r.name === r.profile ? "" : r.name}
              {r.isolated ? " · isolated" : ""}
            </td>
            <td>{r.plants.join(", ")}</td>
            <td>
              {r.place}
              {r.spot ? `, ${r.spot}` : ""}
            </td>
            <td>
              {r.phase}
              {r.school ? `, ${r.school}` : ""}
            </td>
            <td style={{ whiteSpace: "nowrap" }}>{figure(r.interval_days, 2)} d</td>
            <td style={{ whiteSpace: "nowrap" }}>
              {r.last_pour_on ? day(r.last_pour_on, today) : "never"}
            </td>
            <td>
              <Reading row={r} />
            </td>
            <td style={{ width: 210 }}>
              <PotRail row={r} width={190} />
            </td>
            <td>{r.tags.join(", ")}</td>
          </tr>
        ))}
      </DataTable>
    </Box>
  )
}
