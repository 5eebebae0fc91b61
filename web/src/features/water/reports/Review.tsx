import type { Schemas } from "../../../api/client"
import { Facts } from "../../../ui/Facts"
import { Quantity } from "../../../ui/Quantity"

type Fetched = { kind: "fetch"; key: string; load: () => Promise<Schemas["Working"]> }

/** What the lines of a report say together. */
export function Review({
  v,
  whole,
  balance,
}: {
  v: Schemas["ReportReview"]
  whole: Fetched
  balance: Fetched
}) {
  return (
    <Facts
      rows={[
        [
          "Cations and anions",
          <span key="c">
            <Quantity
              label="Cations"
              value={v.balance.cations_meq_L}
              unit="and"
              working={balance}
            />{" "}
            <Quantity
              label="Anions"
              value={v.balance.anions_meq_L}
              unit="meq/L"
              working={balance}
            />
          </span>,
        ],
        [
          "Charge error",
          <Quantity
            key="e"
            label="Charge error"
            value={v.balance.error_pct}
            unit="%"
            working={balance}
          />,
        ],
        [
          "EC computed from the ions",
          <Quantity
            key="k"
            label="EC computed"
            kind="ec"
            value={v.computed_uS_cm}
            working={whole}
          />,
        ],
        [
          "EC reported",
          <Quantity
            key="r"
            label="EC reported"
            kind="ec"
            value={v.reported_uS_cm}
            none="not stated"
          />,
        ],
        [
          "Hardness",
          <Quantity
            key="h"
            label="Hardness"
            value={v.hardness_mg_L_CaCO3}
            unit="mg/L CaCO3"
            working={whole}
            none="needs calcium and magnesium"
          />,
        ],
        [
          "Carbonate hardness",
          <Quantity
            key="ch"
            label="Carbonate hardness"
            value={v.carbonate_hardness_mg_L_CaCO3}
            unit="mg/L CaCO3"
            working={whole}
            none="needs alkalinity"
          />,
        ],
        [
          "Alkalinity",
          <Quantity key="a" label="Alkalinity" value={v.alkalinity_mg_L_CaCO3} unit="mg/L CaCO3" />,
        ],
        [
          "Sodium against hardness, SAR",
          <Quantity
            key="s"
            label="SAR"
            value={v.sar}
            unit=""
            working={whole}
            none="needs sodium, calcium, magnesium"
          />,
        ],
        ["Not in it", v.balance.missing.join(", ") || "nothing of the main ions"],
      ]}
    />
  )
}
