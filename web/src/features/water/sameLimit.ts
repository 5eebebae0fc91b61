import type { Schemas } from "../../api/client"

/** Kinds with one limit share a label, a few names at a time. */
export function sameLimit(
  groups: Schemas["GroupOut"][],
  most: number,
): { limit: number; names: string }[] {
  const limits = [...new Set(groups.map((g) => g.ec_max_uS_cm))]
  return limits.flatMap((limit) => {
    const names = groups.filter((g) => g.ec_max_uS_cm === limit).map((g) => g.short)
    return Array.from({ length: Math.ceil(names.length / most) }, (_, i) => ({
      limit,
      names: names.slice(i * most, (i + 1) * most).join(", "),
    }))
  })
}
