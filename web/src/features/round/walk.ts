// A walk: the frozen list, where it stands, and the cans made for it. Kept in the browser at each step.
import { useEffect, useState } from "react"
import type { Schemas } from "../../api/client"
import { keepWalk, loadWalk } from "../../api/outbox"

/** A can mixed on the walk: its id, or the key under which it still waits. */
export type Mixed = { id: number } | { key: string }
export type Walk = {
  page: Schemas["RoundPage"]
  at: number
  done: number[]
  opened: string[]
  cans: Record<string, Mixed>
}

const NAME = "round"
export const newWalk = (page: Schemas["RoundPage"]): Walk => ({
  page,
  at: 0,
  done: [],
  opened: [],
  cans: {},
})

/** The walk an earlier visit left, once looked for: undefined while looking, null if there is none. */
export function useLeftWalk() {
  const [left, setLeft] = useState<Walk | null | undefined>(undefined)
  useEffect(() => {
    void loadWalk<Walk>(NAME).then(
      (w) => setLeft(w ?? null),
      () => setLeft(null),
    )
  }, [])
  return left
}

export const keep = (walk: Walk | null) => void keepWalk(NAME, walk).catch(() => undefined)
