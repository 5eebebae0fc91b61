import type { Schemas } from "../../../api/client"
import { Facts } from "../../../ui/Facts"
import { figure } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"

/** One strength in every unit it is named in. */
export function Equivalents({
  r,
  unit,
  here,
}: {
  r: Schemas["Equivalents"]
  unit: string
  here: { kind: "here"; working: Schemas["Working"] } | undefined
}) {
  return (
    <Facts
      rows={[
        [
          "Share of the label kept",
          <Quantity
            key="f"
            label="Share kept"
            value={r.fraction}
            unit=""
            working={here}
            none="the label names no rate"
          />,
        ],
        [
          "Nitrogen",
          <Quantity
            key="n"
            label="Nitrogen"
            value={r.nitrogen_mg_L}
            unit="mg/L N"
            working={here}
          />,
        ],
        [
          "EC added",
          <Quantity key="a" label="EC added" kind="ec" value={r.ec_added_uS_cm} working={here} />,
        ],
        [
          "EC in the can",
          <Quantity
            key="t"
            label="EC in the can"
            kind="ec"
            value={r.ec_total_uS_cm}
            working={here}
          />,
        ],
        [
          "A litre",
          <Quantity
            key="l"
            label="Dose"
            value={r.dose_mL_L ?? r.dose_g_L}
            unit={`${unit}/L`}
            working={here}
          />,
        ],
        [
          "A US gallon",
          <Quantity
            key="u"
            label="For a US gallon"
            value={r.per_us_gal}
            unit={unit}
            working={here}
          />,
        ],
        [
          "An imperial gallon",
          <Quantity
            key="i"
            label="For an imperial gallon"
            value={r.per_imp_gal}
            unit={unit}
            working={here}
          />,
        ],
        [
          "100 US gallons",
          <Quantity
            key="o"
            label="For 100 US gallons"
            value={r.oz_per_100_us_gal}
            unit="oz"
            working={here}
          />,
        ],
        [
          "Elements",
          Object.entries(r.elements_mg_L)
            .map(([name, level]) => `${name} ${figure(level, 2)}`)
            .join(", "),
        ],
      ]}
    />
  )
}
