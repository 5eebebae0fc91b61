// The one way to the server: typed by its OpenAPI document, problems thrown as ApiProblem.
import createClient from "openapi-fetch"
import { ApiProblem, type ProblemBody } from "./problem"
import { servedInterface } from "./served"
import type { components, paths } from "./generated/schema"

export type Schemas = components["schemas"]

export const client = createClient<paths>({
  baseUrl: window.location.origin,
  fetch: (request) =>
    globalThis.fetch(request).catch(() => {
      throw new ApiProblem({
        title: "No answer",
        status: 0,
        detail:
          "Fenwa does not answer. Is it still running? Nothing you typed is lost; send again.",
      })
    }),
})

client.use({
  async onResponse({ response }) {
    servedInterface(response.headers.get("fenwa-interface"))
    if (response.status === 401) window.location.assign("/sign-in") // signed out elsewhere
    if (!response.ok) throw new ApiProblem((await response.json().catch(() => ({}))) as ProblemBody)
    return response
  },
})

/** The body of an answer; a problem has been thrown before. */
export async function answer<T>(call: Promise<{ data?: T }>): Promise<T> {
  const { data } = await call
  return data as T
}

/** Header of a write: sending the same key twice stores once. */
export const keyed = (key: string) => ({ header: { "idempotency-key": key } })
