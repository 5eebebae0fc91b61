// What the Leaf station asks for: a line a plant, with its working.
import { queryOptions } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"

export type PlantLine = Schemas["PlantLine"]
export const leafStationQuery = queryOptions({
  queryKey: ["leaves"],
  queryFn: () => answer(client.GET("/api/leaves")),
})
export const lineWorking = (potId: number) => ({
  kind: "fetch" as const,
  key: `leaf-line-${potId}`,
  load: () =>
    answer(
      client.GET("/api/pots/{pot_id}/leaf-line", { params: { path: { pot_id: potId } } }),
    ).then((c) => c.working),
})
