// What a line and a leaf say in words: the same for the pointer, the keys and the screen reader.
import { amount, day } from "../../ui/format"
import type { PlantLine } from "./queries"

export function saysOfLeaf(plant: PlantLine, index: number, today: string): string {
  const leaf = plant.line.leaves[index]
  if (!leaf) return ""
  return [
    `${plant.code}, leaf ${index + 1}, opened ${day(leaf.opened_on, today)}`,
    leaf.mm === null
      ? "not measured"
      : `${amount(leaf.mm, "mm")}${leaf.growing ? ", still growing" : ""}`,
    leaf.share !== null && !leaf.growing && `${Math.round(leaf.share * 100)} % of its usual`,
    plant.line.change_on && leaf.formed && `${leaf.formed} the ${plant.line.change}`,
  ]
    .filter(Boolean)
    .join(" · ")
}

export const saysOfLine = (plant: PlantLine, today: string) =>
  `${plant.code} ${plant.name}, ${plant.line.leaves.length} leaves: ${plant.line.word}. ${plant.line.next_leaf.sentence} ` +
  (plant.last_look_on ? `Last looked at ${day(plant.last_look_on, today)}.` : "Never looked at.")
