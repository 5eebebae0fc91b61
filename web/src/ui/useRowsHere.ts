import { useState } from "react"

/** A long list shown piece by piece. `missing`: how many of its rows have not come yet. */
export function useRowsHere<T>(rows: readonly T[], atOnce: number, missing = 0) {
  const [count, setCount] = useState(atOnce)
  const left = rows.length + missing - Math.min(count, rows.length)
  return {
    shown: rows.slice(0, count),
    left,
    query: {
      hasNextPage: left > 0,
      isFetchingNextPage: missing > 0 && count > rows.length,
      fetchNextPage: () => setCount(count + atOnce),
    },
  }
}
