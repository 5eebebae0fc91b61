import { Box, Link as Anchor } from "@chakra-ui/react"
import { useState } from "react"
import { DataTable } from "../../ui/DataTable"
import { numberIn, unitName, wholeDay } from "../../ui/format"
import type { PlantLine } from "./queries"

/** The same as a table, a row a leaf, and as CSV. */
export function LeafTable({ plants }: { plants: PlantLine[] }) {
  const [open, setOpen] = useState(false)
  return (
    <Box asChild mt="3">
      <details onToggle={(e) => setOpen(e.currentTarget.open)}>
        <summary style={{ cursor: "pointer", minHeight: 44 }}>Table, a row a leaf</summary>
        {open && (
          <>
            <Anchor href={"/api/leaves.csv"} download textDecoration="underline">
              Export as CSV
            </Anchor>
            <DataTable
              label="Leaves"
              head={["Plant", "Leaf", "Opened", unitName("mm"), "% of usual", "Formed", "Verdict"]}
              minW="560px"
            >
              {plants.flatMap((p) =>
                p.line.leaves.map((l, i) => (
                  <tr key={`${p.pot_id}-${l.opened_on}-${i}`}>
                    <td>{p.code}</td>
                    <td>{i + 1}</td>
                    <td>{wholeDay(l.opened_on)}</td>
                    <td>
                      {l.mm === null
                        ? "not measured"
                        : `${numberIn(l.mm, "mm")}${l.growing ? ", growing" : ""}`}
                    </td>
                    <td>{l.share === null ? "" : Math.round(l.share * 100)}</td>
                    <td>{p.line.change_on ? l.formed : ""}</td>
                    <td>{p.line.word}</td>
                  </tr>
                )),
              )}
            </DataTable>
          </>
        )}
      </details>
    </Box>
  )
}
