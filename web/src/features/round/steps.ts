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

const MIN_IN_A_ROW = 3 // two alike pots are as quick one by one

/** Steps in walking order; a row of alike pots is one step unless it was opened. */
export function stepsOf(plan: Schemas["RoundPlan"], opened: readonly string[] = []): Step[] {
  const met = new Set<string>()
  return plan.legs.flatMap((leg): Step[] => {
    const can = plan.cans.find((c) => c.letter === leg.letter)
    if (!can) return []
    const made = met.has(can.letter) || !(can.job === "feed" || can.job === "leaf spray")
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
    if (pots.length >= MIN_IN_A_ROW && can.job !== "flush" && !opened.includes(name))
      return [{ kind: "row", can, pots, name, index, of: can.pots.length }]
    return pots.map((pot, i) => ({ kind: "pour", can, pot, index: index + i, of: can.pots.length }))
  })
}

/** What one tap of plus or minus changes. */
export const stepOf = (amount_mL: number) => (amount_mL < 150 ? 10 : 50)

/** What a pot of this can gets, in a word. */
export const given = (can: Schemas["Can"], route: string) =>
  can.job === "flush"
    ? "flush"
    : route === "tray"
      ? "into the tray"
      : can.job === "feed"
        ? "feed"
        : can.job === "leaf spray"
          ? "leaf spray"
          : "plain water"
