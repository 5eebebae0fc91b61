import { Button } from "@chakra-ui/react"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { usePress } from "../../ui/usePress"

/** Puts a label on the shelf, or takes it off: the round weighs only what is there. */
export function Owned({ p }: { p: Schemas["ProductOut"] }) {
  const set = usePress((owned: boolean, key: string) =>
    answer(
      client.POST("/api/products/{product_id}/owned", {
        params: { ...keyed(key), path: { product_id: p.id } },
        body: { owned },
      }),
    ),
  )
  return (
    <Button
      size="sm"
      variant={p.owned ? "ghost" : "solid"}
      minH="40px"
      aria-label={`${p.owned ? "Remove" : "Add"} ${p.name}`}
      loading={set.isPending}
      onClick={() => set.mutate(!p.owned)}
    >
      {p.owned ? "Remove" : "Add"}
    </Button>
  )
}
