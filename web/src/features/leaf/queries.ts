// What the Leaf station asks for: a line a plant, with its working.
import { keepPreviousData, queryOptions } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"
import type { operations } from "../../api/generated/schema"
import { windowed } from "../../api/windowed"

export type PlantLine = Schemas["PlantLine"]
export type LeafGroup = Schemas["LeafGroup"]
export type Asked = NonNullable<operations["leaf_station_api_leaves_get"]["parameters"]["query"]>

export const leafStationQuery = (query: Asked) =>
  queryOptions({
    queryKey: ["leaves", query],
    queryFn: () => answer(client.GET("/api/leaves", { params: { query } })),
    placeholderData: keepPreviousData,
  })

/** What a group holds beyond the plants the station sent of it. */
export const moreOfGroup = (query: Asked, group: string, from: number) =>
  windowed({
    key: ["leaves", query, group, from],
    from,
    rows: (page: Schemas["LeafRows"]) => page.plants.length,
    ask: (skip) =>
      answer(client.GET("/api/leaves/more", { params: { query: { ...query, group, skip } } })),
  })
export const lineWorking = (potId: number) => ({
  kind: "fetch" as const,
  key: `leaf-line-${potId}`,
  load: () =>
    answer(
      client.GET("/api/pots/{pot_id}/leaf-line", { params: { path: { pot_id: potId } } }),
    ).then((c) => c.working),
})
