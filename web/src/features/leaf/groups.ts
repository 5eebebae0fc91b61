// Plants in groups: by the question they answer, by kind, or by place.
import type { PlantLine } from "./queries"

export type GroupBy = "question" | "kind" | "place"
const QUESTIONS = ["look today", "being judged", "as usual", "at rest"] as const

export function groupsOf(plants: PlantLine[], by: GroupBy) {
  const keyOf = (p: PlantLine) =>
    by === "question" ? p.line.group : by === "kind" ? p.profile : p.place
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
