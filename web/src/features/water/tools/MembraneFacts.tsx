import type { Schemas } from "../../../api/client"
import { Facts } from "../../../ui/Facts"
import { day, figure } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"

/** Rejection, its trend, and what is wasted. */
export function MembraneFacts({
  r,
  today,
  here,
}: {
  r: Schemas["MembraneTrend"]
  today: string
  here: { kind: "here"; working: Schemas["Working"] } | undefined
}) {
  return (
    <Facts
      rows={[
        [
          "Rejection now",
          <Quantity key="n" label="Rejection now" value={r.now_pct} unit="%" working={here} />,
        ],
        [
          "Trend, with its 95 % range",
          <Quantity
            key="t"
            label="Trend"
            value={r.trend_pct_month}
            low={r.trend_low_pct_month}
            high={r.trend_high_pct_month}
            unit="% a month"
            working={here}
            none="three days with a pair are needed"
          />,
        ],
        [
          "Below your floor of " + figure(r.floor_pct) + " %",
          r.below_floor_on ? `about ${day(r.below_floor_on, today)}` : "no date in sight",
        ],
        [
          "Earliest and latest",
          [
            r.below_floor_earliest ? day(r.below_floor_earliest, today) : "none",
            r.below_floor_latest ? day(r.below_floor_latest, today) : "not for years",
          ].join(" to "),
        ],
        [
          "Recovery",
          <Quantity
            key="r"
            label="Recovery"
            value={r.recovery_pct}
            unit="%"
            working={here}
            none="volumes not measured"
          />,
        ],
        [
          "Concentrate for each litre",
          <Quantity
            key="c"
            label="Concentrate for each litre"
            value={r.concentrate_L_per_L}
            unit="L"
            working={here}
            none="volumes not measured"
          />,
        ],
        [
          "Concentrate reads",
          <Quantity
            key="e"
            label="EC of the concentrate"
            kind="ec"
            value={r.concentrate_uS_cm}
            working={here}
            none="volumes not measured"
          />,
        ],
      ]}
    />
  )
}
