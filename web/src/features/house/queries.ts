// Where the data are and what is kept of them; files go as they are, not as JSON.
import { queryOptions } from "@tanstack/react-query"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { figure } from "../../ui/format"

export type Data = Schemas["DataOut"]
export type Backup = Schemas["BackupOut"]
export type Preview = Schemas["ImportPreview"]
export type Conflicts = "refuse" | "mine" | "theirs"

export const dataQuery = queryOptions({
  queryKey: ["backups"],
  queryFn: () => answer(client.GET("/api/backups")),
})

const asItIs = {
  bodySerializer: (body: unknown) => body as BodyInit,
  headers: { "content-type": "application/octet-stream" },
}

/** What a file would bring; nothing is stored. */
export const preview = (file: File) =>
  answer(client.POST("/api/archive/preview", { body: file as never, ...asItIs }))

/** Take a file in, all or nothing. */
export const importFile = (file: File, conflicts: Conflicts) =>
  answer(
    client.POST("/api/archive/import", {
      params: { query: { conflicts } },
      body: file as never,
      ...asItIs,
    }),
  )

/** Add the plants of a file beside what is here, all or nothing. */
export const importPlants = (file: File, key: string) =>
  answer(
    client.POST("/api/archive/pots", {
      params: keyed(key),
      body: file as never,
      bodySerializer: asItIs.bodySerializer,
      headers: { ...asItIs.headers, "idempotency-key": key },
    }),
  )

/** Bytes as a reader takes them. */
export const size = (bytes: number) =>
  bytes < 1e6
    ? `${figure(bytes / 1e3)} kB`
    : bytes < 1e9
      ? `${figure(bytes / 1e6)} MB`
      : `${figure(bytes / 1e9)} GB`
