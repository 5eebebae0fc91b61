// What was seen last stands in while Fenwa is out of reach, so that a page opened at the bench still opens.
import { keepWalk, loadWalk } from "./outbox"
import { ApiProblem } from "./problem"

/** Ask Fenwa and remember the answer; out of reach, the answer as it stood when it was last seen here. */
export async function lastKnown<T>(name: string, ask: () => Promise<T>): Promise<T> {
  try {
    const found = await ask()
    await keepWalk(`seen-${name}`, found).catch(() => undefined)
    return found
  } catch (error) {
    const last = await loadWalk<T>(`seen-${name}`).catch(() => undefined)
    if (last !== undefined && isOutOfReach(error)) return last
    throw error
  }
}

/** Fenwa did not answer at all; a refusal is an answer. */
const isOutOfReach = (error: unknown) => error instanceof ApiProblem && error.body.status === 0
