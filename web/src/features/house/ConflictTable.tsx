import { Box } from "@chakra-ui/react"
import { DataTable } from "../../ui/DataTable"
import type { Preview } from "./queries"

/** Rows that are here and in the file with other values, field by field. */
export function ConflictTable({ rows }: { rows: Preview["conflicts"] }) {
  if (rows.length === 0) return null
  return (
    <Box mt="2">
      <DataTable label="Rows in conflict" head={["Row", "Field", "Mine", "The file’s"]}>
        {rows.flatMap((r) =>
          r.fields.map((f) => (
            <tr key={`${r.table} ${r.key} ${f.name}`}>
              <td>
                {r.table} {r.key}, {r.words}
              </td>
              <td>{f.name}</td>
              <td>{f.mine}</td>
              <td>{f.theirs}</td>
            </tr>
          )),
        )}
      </DataTable>
    </Box>
  )
}
