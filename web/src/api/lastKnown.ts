// What was seen last stands in while Fenwa is out of reach, so that a page opened at the bench still opens.
import { keepWalk, loadWalk } from "./outbox"
import { ApiProblem } from "./problem"

type Seen<T> = { at: number; value: T }
const standingIn = new Map<string, number>()
const listeners = new Set<() => void>()
let oldest: number | null = null

function stands(name: string, at: number | null) {
  if (at === null) standingIn.delete(name)
  else standingIn.set(name, at)
  const now = standingIn.size > 0 ? Math.min(...standingIn.values()) : null
  if (now === oldest) return
  oldest = now
  listeners.forEach((l) => l())
}

/** When what is shown was last seen, if any of it stands in; null: all of it is of now. */
export const seenAt = () => oldest
export function subscribeSeen(listener: () => void) {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}

/** Keep what was seen, for when Fenwa is out of reach. */
export async function remember<T>(name: string, value: T) {
  const seen: Seen<T> = { at: Date.now(), value }
  await keepWalk(`last-${name}`, seen).catch(() => undefined)
}

/** Ask Fenwa and remember the answer; out of reach, the answer as it stood when it was last seen here. */
export async function lastKnown<T>(name: string, ask: () => Promise<T>): Promise<T> {
  try {
    const found = await ask()
    void remember(name, found) // shown at once, kept meanwhile
    stands(name, null)
    return found
  } catch (error) {
    const last = await loadWalk<Seen<T>>(`last-${name}`).catch(() => undefined)
    if (!last || !isOutOfReach(error)) throw error
    stands(name, last.at)
    return last.value
  }
}

/** Fenwa did not answer at all; a refusal is an answer. */
const isOutOfReach = (error: unknown) => error instanceof ApiProblem && error.body.status === 0
