import { useQuery } from "@tanstack/react-query"
import { answer, client, keyed } from "../../api/client"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"
import type { Photo } from "./queries"
import type { Taps } from "./useTaps"

/** What the taps on a photo give, asked of Fenwa at each of them, and the ways to keep it. */
export function useMeasured(photo: Photo, taps: Taps, leaf: string) {
  const notice = useNotice()
  const undo = useUndo()
  const [first, second] = taps.rim
  const params = { path: { photo_id: photo.id } }
  const scale =
    first && second
      ? { first, second, known_mm: taps.known || null, shown_px: taps.shown }
      : undefined
  const preview = useQuery({
    queryKey: ["photos", "measured", photo.id, scale, taps.midrib],
    queryFn: () =>
      scale
        ? answer(
            client.POST("/api/photos/{photo_id}/measured/preview", {
              params,
              body: { taps: scale, points: taps.midrib },
            }),
          )
        : null,
    enabled: scale !== undefined,
    retry: false,
    placeholderData: (last) => last,
  })
  const set = () => {
    if (scale === undefined) throw new Error("saved without a scale")
    return scale
  }
  const save = usePress(
    (growing: boolean, key: string) =>
      answer(
        client.POST("/api/photos/{photo_id}/lengths", {
          params: { ...params, ...keyed(key) },
          body: { taps: set(), points: taps.midrib, leaf_id: Number(leaf), growing },
        }),
      ),
    (stored) => {
      notice({ text: "Length saved.", undo: () => undo("leaf length", stored.id) })
      taps.clear()
    },
  )
  const saveScale = usePress(
    (_: null, key: string) =>
      answer(
        client.POST("/api/photos/{photo_id}/scale", {
          params: { ...params, ...keyed(key) },
          body: set(),
        }),
      ),
    () => notice({ text: "Scale saved." }),
  )
  const found = scale ? (preview.data ?? undefined) : undefined
  const problem =
    (scale ? preview.error?.message : undefined) ?? save.error?.message ?? saveScale.error?.message
  const length = taps.midrib.length > 1 ? (found?.length ?? undefined) : undefined
  return { found, length, problem, save, saveScale }
}
