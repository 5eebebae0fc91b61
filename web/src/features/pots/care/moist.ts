import type { Schemas } from "../../../api/client"

/** How a medium feels, from wet to dry, in the order the server counts. */
export const MOIST: NonNullable<Schemas["ReadyIn"]["moist"]>[] = [
  "wet",
  "moist",
  "barely damp",
  "dry",
]
