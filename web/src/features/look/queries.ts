import { queryOptions } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"
import { lastKnown } from "../../api/lastKnown"

export type Asked = Schemas["LookAsked"]
export type OrganAsked = Schemas["OrganAsked"]

/** The plants that went unseen longest; out of reach of Fenwa, as they stood when they were last asked for. */
export const looksQuery = queryOptions({
  queryKey: ["looks"],
  queryFn: () => lastKnown("looks", () => answer(client.GET("/api/looks-asked"))),
})

/** One plant's look; out of reach, as it was last seen here, among the unseen ones too. */
export const lookQuery = (potId: number, plantId?: number) =>
  queryOptions({
    queryKey: ["pots", "look", potId, plantId ?? null],
    queryFn: () =>
      lastKnown(`look-${potId}-${plantId ?? ""}`, () =>
        answer(
          client.GET("/api/pots/{pot_id}/look-asked", {
            params: { path: { pot_id: potId }, query: { plant_id: plantId } },
          }),
        ),
      ),
  })

/** Where a look is sent, and where a photo of it goes once Fenwa has answered. */
export const lookPath = (potId: number) =>
  "/api/pots/{pot_id}/looks".replace("{pot_id}", String(potId))
export const PHOTOS_OF_LOOK = "/api/looks/{look_id}/photos".replace("{look_id}", "{from}")
