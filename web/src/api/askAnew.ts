import type { InvalidateQueryFilters, QueryClient } from "@tanstack/react-query"

/** Ask anew for what a write may have changed. What is on its way may have been read before the write, and its answer
 * may come after: it is not waited for. */
export async function askAnew(queries: QueryClient, which?: InvalidateQueryFilters) {
  await queries.cancelQueries(which)
  await queries.invalidateQueries(which)
}
