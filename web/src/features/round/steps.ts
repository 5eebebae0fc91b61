// The walk through today's cans as a list of steps, frozen when it starts.
import type { Schemas } from "../../api/client"

export type Step =
  | { kind: "mix"; can: Schemas["Can"] }
  | { kind: "pour"; can: Schemas["Can"]; pot: Schemas["CanPot"]; index: number; of: number }
  | {
      kind: "row"
      can: Schemas["Can"]
      pots: Schemas["CanPot"][]
      name: string
      index: number
      of: number
    }

/** Steps in walking order; a row of alike pots is one step unless it was opened. */
export function stepsOf(plan: Schemas["RoundPlan"], opened: readonly string[] = []): Step[] {
  const met = new Set<string>()
  return plan.legs.flatMap((leg): Step[] => {
    const can = plan.cans.find((c) => c.letter === leg.letter)
    if (!can) return []
    const made = met.has(can.letter) || !can.to_mix
    met.add(can.letter)
    return [...(made ? [] : [{ kind: "mix" as const, can }]), ...pours(can, leg.pot_ids, opened)]
  })
}

function pours(can: Schemas["Can"], ids: readonly number[], opened: readonly string[]): Step[] {
  const here = can.pots.filter((p) => ids.includes(p.pot_id))
  return [...new Set(here.map((p) => p.row))].flatMap((row): Step[] => {
    const pots = here.filter((p) => p.row === row)
    const name = `${can.letter}${row}`
    const index = can.pots.findIndex((p) => p.row === row) + 1
    if (pots[0]?.together && !opened.includes(name))
      return [{ kind: "row", can, pots, name, index, of: can.pots.length }]
    return pots.map((pot, i) => ({ kind: "pour", can, pot, index: index + i, of: can.pots.length }))
  })
}
