import { Button } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { DataTable } from "../../ui/DataTable"
import { day, numberIn, unitName } from "../../ui/format"
import { LeafForm } from "./LeafForm"

type LeafRecord = Schemas["LeafRecord"]

const opened = (l: LeafRecord, today: string) =>
  l.opened_precision === "day"
    ? day(l.opened_on, today)
    : `${l.opened_precision} of ${day(l.opened_on, today)}`
const length = (l: LeafRecord) => {
  const last = l.lengths.at(-1)
  if (!last) return "not measured"
  return [
    numberIn(last.mm, "mm"),
    l.finished_mm === null && "growing",
    last.origin === "photo" && "from a photo",
  ]
    .filter(Boolean)
    .join(", ")
}

/** Leaves as records, the newest first. */
export function LeavesTable({ leaves, today }: { leaves: LeafRecord[]; today: string }) {
  const [open, setOpen] = useState<number | null>(null)
  const chosen = leaves.find((l) => l.id === open)
  return (
    <>
      <DataTable
        label="Leaves, newest first"
        head={["Leaf", "Opened", `Length, ${unitName("mm")}`, "Lost", "Marks", ""]}
        minW="440px"
      >
        {[...leaves].reverse().map((l) => (
          <tr key={l.id}>
            <td>{l.number}</td>
            <td>{opened(l, today)}</td>
            <td>{length(l)}</td>
            <td>
              {l.lost_on ? `${day(l.lost_on, today)}${l.lost_why ? `, ${l.lost_why}` : ""}` : ""}
            </td>
            <td>
              {[...new Set(l.marks.map((m) => `${m.old ? "old " : ""}${m.kind}`))].join(", ")}
            </td>
            <td>
              <Button
                size="sm"
                variant="ghost"
                minH="44px"
                aria-label={`Edit leaf ${l.number}`}
                onClick={() => setOpen(l.id)}
              >
                Edit
              </Button>
            </td>
          </tr>
        ))}
      </DataTable>
      {chosen && (
        <LeafForm key={chosen.id} leaf={chosen} today={today} onClose={() => setOpen(null)} />
      )}
    </>
  )
}
