import type { Schemas } from "../../../api/client"
import { Facts } from "../../../ui/Facts"
import { day } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"

type Fetched = { kind: "fetch"; key: string; load: () => Promise<Schemas["Working"]> }

/** What the checks say of a meter. */
export function MeterChecked({
  m,
  c,
  today,
  working,
}: {
  m: Schemas["MeterOut"]
  c: Schemas["MeterCalibration"]
  today: string
  working: Fetched
}) {
  return (
    <Facts
      rows={[
        [
          "Slope",
          <Quantity
            key="s"
            label={`Slope of ${m.name}`}
            value={c.slope}
            unit=""
            working={working}
          />,
        ],
        [
          "As a factor of what it shows",
          <Quantity
            key="k"
            label={`Factor of ${m.name}`}
            value={c.factor}
            unit="×"
            working={working}
          />,
        ],
        [
          "Offset",
          <Quantity
            key="o"
            label={`Offset of ${m.name}`}
            value={c.offset_uS_cm}
            unit="µS/cm"
            working={working}
          />,
        ],
        [
          "Drift",
          <Quantity
            key="d"
            label={`Drift of ${m.name}`}
            value={c.drift_pct_month}
            unit="% a month"
            working={working}
            none="two checks are needed"
          />,
        ],
        [
          "Uncertainty today",
          <Quantity
            key="u"
            label={`Uncertainty of ${m.name}`}
            value={100 * c.relative_half_width}
            unit="%"
            working={working}
          />,
        ],
        [
          "Fit for limits above",
          <Quantity
            key="f"
            label={`Lowest limit for ${m.name}`}
            kind="ec"
            value={c.fit_above_uS_cm}
            working={working}
          />,
        ],
        ["Next check", <b key="n">{m.check_due ? "due now" : day(c.next_check_on, today)}</b>],
      ]}
    />
  )
}
