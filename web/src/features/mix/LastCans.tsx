import { Button } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { DataTable } from "../../ui/DataTable"
import { ago, amount, day, span, numberIn } from "../../ui/format"
import type { Page } from "./draft"

/** The batch log: predicted, measured, what is left and how old it is. */
export function LastCans({
  page,
  onOpen,
}: {
  page: Page
  onOpen: (b: Schemas["BatchOut"]) => void
}) {
  return (
    <details style={{ marginTop: "16px" }}>
      <summary style={{ cursor: "pointer", padding: "10px 0" }}>The last cans</summary>
      <DataTable
        label="The last cans"
        head={["Made", "Can", "Expected", "Read", "By", "Verdict", "Left", ""]}
        minW="720px"
      >
        {page.batches.map((b) => (
          <tr key={b.id}>
            <td>
              {day(b.made_on, page.today)}, {ago(b.age_days)}
            </td>
            <td>
              {b.name}
              {b.recipe_version !== null && b.recipe ? (
                <span> · version {b.recipe_version}</span>
              ) : null}
              {b.route !== "root" ? ` · ${b.route}` : ""}
            </td>
            <td>{numberIn(b.predicted_uS_cm, "µS/cm")}</td>
            <td>
              {b.measured_uS_cm === null ? "not measured" : `${amount(b.measured_uS_cm, "µS/cm")}`}
            </td>
            <td>{b.measured_by || "no meter named"}</td>
            <td>{b.verdict || "not judged"}</td>
            <td>{span(b.left_L, b.volume_L, "L", "of")}</td>
            <td>
              <Button size="xs" variant="outline" onClick={() => onOpen(b)}>
                Pour from it
              </Button>
            </td>
          </tr>
        ))}
      </DataTable>
    </details>
  )
}
