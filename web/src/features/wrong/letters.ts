// Each dated piece of evidence has a letter: on the axis, and where a cause leans on it.
import type { Wrong } from "./queries"

const ALPHABET = "abcdefghijklmnopqrstuvwxyz"

export type Letters = Map<string, string>

/** A letter for every day on which evidence stands, the oldest first. */
export function lettersOf(page: Wrong): Letters {
  const shown = page.readings
    ? [...page.readings.first.causes, ...page.readings.second.causes]
    : page.shown
  const days = new Set<string>()
  for (const cause of shown)
    for (const piece of [...cause.speaks_for, ...cause.speaks_against])
      if (piece.on) days.add(piece.on)
  return new Map([...days].sort().map((d, i) => [d, ALPHABET[i] ?? "…"]))
}
