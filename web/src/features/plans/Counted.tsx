import { Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { shelfQuery } from "../../api/queries"
import { Choose, EntryRow } from "../../ui/EntryRow"
import type { PartProps } from "./Part"

/** A strength as its grower counts it: so many of a weighed spoon or dropper in so many litres. */
export function Counted({ values: v, set }: Pick<PartProps, "values" | "set">) {
  const measures = useQuery(shelfQuery).data?.measures ?? []
  if (measures.length === 0)
    return <Text fontSize="sm">Weigh a spoon or count a dropper at the Mix station first.</Text>
  return (
    <>
      <EntryRow label="How many" unit="" value={v.count} onChange={(count) => set({ count })} />
      <Choose label="Of which" value={v.measure_id} onChange={(measure_id) => set({ measure_id })}>
        <option value="">choose</option>
        {measures.map((m) => (
          <option key={m.id} value={m.id}>
            {m.name}
            {m.product && `, ${m.product}`}
          </option>
        ))}
      </Choose>
      <EntryRow label="In" unit="L" value={v.count_L} onChange={(count_L) => set({ count_L })} />
    </>
  )
}
