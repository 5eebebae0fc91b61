// Plants in groups: by the question they answer, by kind, place or school; and which of them are shown.
import type { PlantLine } from "./queries"

export type GroupBy = "question" | "kind" | "place" | "school"
export type Shown = "all" | "marked" | "judged" | "unseen"
const QUESTIONS = ["look today", "being judged", "as usual", "at rest"] as const

export function groupsOf(plants: PlantLine[], by: GroupBy) {
  const keyOf = (p: PlantLine) =>
    ({ question: p.line.group, kind: p.profile, place: p.place, school: p.school })[by]
  const keys =
    by === "question"
      ? [...QUESTIONS]
      : [...new Set(plants.map(keyOf))].sort((a, b) => a.localeCompare(b))
  return keys
    .map((key) => ({
      key,
      folds: key === "as usual" || key === "at rest",
      plants: plants
        .filter((p) => keyOf(p) === key)
        .sort((a, b) => (a.last_look_on ?? "").localeCompare(b.last_look_on ?? "")),
    }))
    .filter((g) => g.plants.length > 0)
}

/** Plants a filter lets through: with a mark, with a change that is judged, due for a look, or all. */
export const shownOf = (plants: PlantLine[], shown: Shown) =>
  plants.filter(
    (p) =>
      ({
        all: true,
        marked: p.marks.length > 0,
        judged: p.line.group === "being judged",
        unseen: p.line.group === "look today",
      })[shown],
  )
