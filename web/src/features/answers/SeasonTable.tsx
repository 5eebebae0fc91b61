import { DataTable } from "../../ui/DataTable"
import type { Overlay } from "./queries"

/** What went in and what came of it at the shared age, a season a column. */
export function SeasonTable({ overlay }: { overlay: NonNullable<Overlay["overlay"]>["result"] }) {
  return (
    <DataTable
      label="What differed"
      minW="320px"
      head={["", ...overlay.seasons.map((s) => s.name)]}
    >
      {overlay.lines.map((l) => (
        <tr key={l.what}>
          <th scope="row" style={{ fontWeight: l.differs ? 600 : 400 }}>
            {l.what}
          </th>
          {l.sides.map((s, i) => (
            <td key={i} style={{ fontWeight: l.differs ? 600 : 400 }}>
              {s}
            </td>
          ))}
        </tr>
      ))}
    </DataTable>
  )
}
