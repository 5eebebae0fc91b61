import { useQuery } from "@tanstack/react-query"
import { answer, client } from "../../api/client"
import { figure } from "../../ui/format"
import { labelOf, type Values } from "./labelFields"
import { Wide } from "./formParts"

const NAMES = [
  ["N_mg_g", "N"],
  ["P_mg_g", "P"],
  ["K_mg_g", "K"],
  ["Ca_mg_g", "Ca"],
  ["Mg_mg_g", "Mg"],
  ["S_mg_g", "S"],
  ["Fe_mg_g", "Fe"],
] as const

/** What the label comes to while it is typed, as elements. */
export function LabelSum({ values }: { values: Values }) {
  const label = labelOf(values)
  const stated =
    values.formula !== "" ||
    [
      values.n_total_pct,
      values.n_nitrate_pct,
      values.p_pct,
      values.k_pct,
      values.ca_pct,
      values.mg_pct,
    ].some((x) => x !== "")
  const query = useQuery({
    queryKey: ["label", JSON.stringify(label)],
    queryFn: () => answer(client.POST("/api/products/elements", { body: label })),
    enabled: stated && values.name !== "",
    retry: false,
  })
  if (!query.data) return null
  const { result, working } = query.data
  return (
    <Wide>
      A gram holds{" "}
      {NAMES.filter(([key]) => result[key] > 0)
        .map(([key, name]) => `${name} ${figure(result[key], 3)}`)
        .join(", ")}{" "}
      mg. {working.assumptions.join(" ")} {working.cautions.join(" ")}
    </Wide>
  )
}
