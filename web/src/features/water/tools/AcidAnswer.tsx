import { Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { Facts } from "../../../ui/Facts"
import { Quantity } from "../../../ui/Quantity"

/** How much acid, first and in all, and what it does. */
export function AcidAnswer({
  r,
  cautions,
  label,
  here,
}: {
  r: Schemas["Acidified"]
  cautions: string[]
  label: string
  here: { kind: "here"; working: Schemas["Working"] } | undefined
}) {
  return (
    <>
      <Text fontSize="xl" fontWeight="semibold">
        <Quantity label="Acid" value={r.amount} unit={`${r.unit} ${label}`} working={here} />
      </Text>
      <Text>
        Give <Quantity label="First portion" value={r.first_portion} unit={r.unit} working={here} />{" "}
        first, stir, measure the alkalinity, then the rest.
      </Text>
      <Facts
        rows={[
          [
            "Alkalinity after",
            <Quantity
              key="a"
              label="Alkalinity after"
              value={r.alkalinity_mg_L_CaCO3}
              unit="mg/L CaCO3"
              working={here}
            />,
          ],
          [
            "pH at once, in the can",
            <Quantity key="p" label="pH at once" value={r.pH_at_once} unit="" working={here} />,
          ],
          [
            "pH after airing",
            <Quantity key="q" label="pH after airing" value={r.pH_aired} unit="" working={here} />,
          ],
          [
            "EC after",
            <Quantity key="e" label="EC after" kind="ec" value={r.ec25_uS_cm} working={here} />,
          ],
          r.adds_mg_L > 0
            ? [
                `It brings ${r.adds}`,
                <Quantity
                  key="n"
                  label="Nutrient added"
                  value={r.adds_mg_L}
                  unit="mg/L"
                  working={here}
                />,
              ]
            : null,
          [
            "The same without acid",
            <Quantity
              key="w"
              label="Pure water instead"
              value={100 * r.pure_water_share}
              unit="% rain or permeate mixed in"
              working={here}
            />,
          ],
        ]}
      />
      {cautions.map((c) => (
        <Text key={c} mt="1" fontSize="sm">
          {c}
        </Text>
      ))}
    </>
  )
}
