import { Button, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { amount, figure } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"
import { Rail } from "../../../ui/Rail"

export function Row({
  row,
  load,
  onEdit,
}: {
  row: Schemas["SchoolOut"]
  load?: Schemas["Computed_SchoolLoad_"]
  onEdit: () => void
}) {
  const s = row.school
  const r = load?.result
  const here = load && { kind: "here" as const, working: load.working }
  const feed =
    s.prill_g_L > 0
      ? `${s.prill_g_L} g/L prills, ${s.prill_days} days`
      : s.feeds > 0
        ? `${figure(s.n_mg_L, 3)} mg/L N, ${s.feeds} of ${s.cycle} ${s.route === "leaf" ? "days" : "waterings"}`
        : "nothing dissolved"
  return (
    <tr>
      <td>
        <b>{s.name}</b>
        {row.edited ? " (mine)" : ""}
        <br />
        <Text as="span" color="fg.muted">
          {s.definition}
        </Text>
      </td>
      <td>{feed}</td>
      <td>
        {r?.leaf_mg_week != null ? (
          <>
            <Quantity
              label={`${s.name}: on the leaves`}
              value={r.leaf_mg_week}
              unit="mg on the leaves"
              working={here}
            />
          </>
        ) : (
          <>
            <Quantity
              label={`${s.name}: applied`}
              value={r?.applied_mg_L_week}
              unit="applied"
              working={here}
            />
            {r?.retained_mg_L_week != null ? `, ${figure(r.retained_mg_L_week, 2)} kept` : ""}
          </>
        )}
      </td>
      <td style={{ minWidth: 170 }}>
        {r?.root_mean_uS_cm != null ? (
          <>
            <Quantity
              label={`${s.name}: root zone`}
              kind="ec"
              value={r.root_mean_uS_cm}
              low={r.root_low_uS_cm}
              high={r.root_high_uS_cm}
              working={here}
            />
            <Rail
              label={`${s.name}: root zone ${amount(r.root_mean_uS_cm, "µS/cm")}`}
              value={r.root_mean_uS_cm}
              low={r.root_low_uS_cm}
              high={r.root_high_uS_cm}
              width={160}
            />
          </>
        ) : (
          "the water’s own"
        )}
      </td>
      <td>
        {s.in_favour}
        <br />
        <Text as="span" color="fg.muted">
          But: {s.against}
        </Text>
      </td>
      <td>
        <Button
          size="sm"
          variant="outline"
          minH="40px"
          aria-label={`Edit ${s.name}`}
          onClick={onEdit}
        >
          Edit
        </Button>
      </td>
    </tr>
  )
}
