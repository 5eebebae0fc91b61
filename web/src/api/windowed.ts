// Long lists in windows: the rows of the screen first, the rest when it is asked for.
import { type InfiniteData, infiniteQueryOptions, keepPreviousData } from "@tanstack/react-query"
import type { ApiProblem } from "./problem"

type Key = readonly unknown[]

/** A list that is asked for by how many of its rows are here already; `from`: those that came another way. */
export const windowed = <P extends { total: number }>({
  key,
  from = 0,
  rows,
  ask,
}: {
  key: Key
  from?: number
  rows: (page: P) => number
  ask: (skip: number) => Promise<P>
}) =>
  infiniteQueryOptions<P, ApiProblem, InfiniteData<P>, Key, number>({
    queryKey: key,
    queryFn: ({ pageParam }) => ask(pageParam),
    initialPageParam: from,
    getNextPageParam: (last, pages) => {
      const here = pages.reduce((sum, page) => sum + rows(page), from)
      return rows(last) > 0 && here < last.total ? here : undefined
    },
    placeholderData: from ? undefined : keepPreviousData,
  })
