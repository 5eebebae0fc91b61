import { queryOptions } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"

export type Photo = Schemas["PhotoOut"]
export type Point = { x: number; y: number }

export const photosQuery = (potId: number) =>
  queryOptions({
    queryKey: ["pots", "photos", potId],
    queryFn: () =>
      answer(client.GET("/api/pots/{pot_id}/photos", { params: { path: { pot_id: potId } } })),
  })
export const diskQuery = queryOptions({
  queryKey: ["photos", "disk"],
  queryFn: () => answer(client.GET("/api/photos")),
})
export const againstQuery = (photo_id: number, other_id: number) =>
  queryOptions({
    queryKey: ["photos", "against", photo_id, other_id],
    queryFn: () =>
      answer(
        client.GET("/api/photos/{photo_id}/against/{other_id}", {
          params: { path: { photo_id, other_id } },
        }),
      ),
    retry: false,
  })

/** Where a photo is, for a list or for the screen. */
export const photoSource = (id: number, size: "list" | "screen" | "whole") =>
  "/api/photos/{photo_id}/{size}".replace("{photo_id}", String(id)).replace("{size}", size)
