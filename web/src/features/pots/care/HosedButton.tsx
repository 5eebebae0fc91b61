import { Button } from "@chakra-ui/react"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { useNotice } from "../../../ui/noticeContext"
import { usePress } from "../../../ui/usePress"
import { useUndo } from "../../../ui/useUndo"

/** One tap for a day's hosing of a place, litres not known. */
export function HosedButton({
  placeId,
  place,
  today,
}: {
  placeId: number
  place: string
  today: string
}) {
  const notice = useNotice()
  const undo = useUndo()
  const hosed = usePress(
    (_: null, key) =>
      answer(
        client.POST("/api/places/{place_id}/hosed", {
          params: { ...keyed(key), path: { place_id: placeId } },
          body: { on: today },
        }),
      ),
    (stored: Schemas["Hosed"]) => {
      const ids = stored.pour_ids
      const text = ids.length
        ? `${place}: hosed today.`
        : `${place}: today stands in the log already.`
      notice({ text, undo: ids.length ? () => ids.forEach((id) => undo("pour", id)) : undefined })
    },
  )
  return (
    <Button
      size="sm"
      variant="outline"
      minH="44px"
      loading={hosed.isPending}
      onClick={() => hosed.mutate(null)}
    >
      Hosed today
    </Button>
  )
}
