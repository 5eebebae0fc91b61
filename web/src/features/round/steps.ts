// The walk through today's cans as a list of steps, frozen when it starts.
import type { Schemas } from "../../api/client"

export type Step =
  | { kind: "mix"; can: Schemas["Can"] }
  | { kind: "pour"; can: Schemas["Can"]; pot: Schemas["CanPot"]; index: number; of: number }

export function stepsOf(plan: Schemas["RoundPlan"]): Step[] {
  return plan.cans.flatMap((can): Step[] => [
    ...(can.job === "feed" || can.job === "leaf spray" ? [{ kind: "mix" as const, can }] : []),
    ...can.pots.map((pot, i) => ({ kind: "pour" as const, can, pot, index: i + 1, of: can.pots.length })),
  ])
}

/** What one tap of plus or minus changes. */
export const stepOf = (amount_mL: number) => (amount_mL < 150 ? 10 : 50)
