import type { Schemas } from "../../../api/client"

type Row = Schemas["PotRow"]

/** Pots that every word of the search is found in: code, name, plants, kind, place, phase, tags. */
export function found(rows: readonly Row[], text: string): Row[] {
  const words = text.trim().toLowerCase().split(/\s+/).filter(Boolean)
  return rows.filter((p) => {
    const all = [
      p.code,
      p.name,
      p.profile,
      p.place,
      p.spot,
      p.phase,
      p.school,
      ...p.plants,
      ...p.tags,
    ]
      .join(" ")
      .toLowerCase()
    return words.every((w) => all.includes(w))
  })
}
