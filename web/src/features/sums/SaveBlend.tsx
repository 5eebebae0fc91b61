import { answer, client, keyed, type Schemas } from "../../api/client"
import { useOptions } from "../../api/queries"
import { SaveTo } from "./SaveTo"
import { useWaters } from "./saves"

const PLAIN: Omit<Schemas["BatchIn"], "made_on" | "water_id" | "blend" | "volume"> = {
  product_id: null,
  pot_ids: [],
  volume_unit: "L",
  strength: "nitrogen",
  element: "N",
  value: 0,
  also: [],
  route: "root",
  school_id: null,
  name: "",
  recipe: "",
}

/** Two waters of the collection in the shares of the sum, nothing added. */
export function SaveBlend({ shares, litres }: { shares: [number, number]; litres: number }) {
  const today = useOptions()?.today ?? ""
  const waters = useWaters()
  const pairs = waters.flatMap((a) =>
    waters.filter((b) => b !== a).map((b) => ({ label: `${a.label} with ${b.label}`, of: [a, b] })),
  )
  return (
    <SaveTo
      label="Save as a can"
      of="Blend of"
      choices={pairs.slice(0, 30).map((p, i) => ({ value: String(i), label: p.label }))}
      send={(at, key) => {
        const of = pairs[at]?.of.map((w) => Number(w.value)) ?? []
        return answer(
          client.POST("/api/batches", {
            params: keyed(key),
            body: {
              ...PLAIN,
              made_on: today,
              water_id: of[0] ?? 0,
              blend: of.map((water_id, i) => ({ water_id, share: shares[i] ?? 0 })),
              volume: litres,
            },
          }),
        )
      }}
      undone={(can) => ["batch", can.id]}
      done={(can) => `${can.name} saved as a can.`}
    />
  )
}
