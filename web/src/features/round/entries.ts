import { amount } from "../../ui/format"
// What the walk writes, as entries of the outbox.
import type { Schemas } from "../../api/client"
import type { Outcome } from "../../api/outbox"
import { post } from "../../api/outbox"
import type { Mixed } from "./walk"

type Pour = Schemas["PourIn"]

/** The outcome of a write, or its refusal thrown for the form it came from. */
async function sent(
  entry: Parameters<typeof post>[0],
): Promise<Exclude<Outcome, { state: "refused" }>> {
  const outcome = await post(entry)
  if (outcome.state === "refused") throw outcome.problem
  return outcome
}

export function pour(
  key: string,
  title: string,
  can: Schemas["Can"],
  mixed: Mixed | undefined,
  part: Pick<Pour, "pot_ids" | "on" | "volume" | "route"> & Partial<Pour>,
  plain = false,
) {
  const made = plain ? undefined : mixed
  const body: Pour = {
    volume_unit: "mL",
    runoff_unit: "µS/cm",
    runoff_method: "runoff",
    note: "",
    felt: "",
    by: "",
    gave: "",
    plant_id: null,
    batch_id: made && "id" in made ? made.id : null,
    water_id: made ? null : can.water_id,
    flush: can.job === "flush" && !plain,
    ...part,
  }
  return sent({
    key,
    path: "/api/pours",
    title,
    body,
    from: made && "key" in made ? made.key : undefined,
  })
}

export const skip = (key: string, title: string, pot_ids: number[], on: string) =>
  sent({
    key,
    path: "/api/skips",
    title,
    body: { pot_ids, on, felt: "heavy", note: "" } satisfies Schemas["SkipIn"],
  })

export const mark = (key: string, title: string, potId: number, on: string, word: string) =>
  sent({
    key,
    path: `/api/pots/${potId}/looks`,
    title,
    body: { on, marks: [word], marks_looked_for: true },
  })

export const mix = (key: string, can: Schemas["Can"], productId: number | null, today: string) =>
  sent({
    key,
    path: "/api/batches",
    title: `Can ${can.letter}, ${amount(can.volume_L, "L")}`,
    body: {
      made_on: today,
      name: "",
      product_id: productId,
      water_id: can.water_id,
      pot_ids: can.pots.map((p) => p.pot_id),
      volume: can.volume_L,
      volume_unit: "L",
      strength: can.strength ?? "nitrogen",
      value: can.strength_value,
      element: "N",
      blend: [],
      also: [],
      route: can.made_for,
      recipe: "",
    },
  })

export const penReading = (
  key: string,
  can: Schemas["Can"],
  mixed: Mixed,
  value: string,
  today: string,
) =>
  sent({
    key,
    title: `Pen in can ${can.letter}: ${value}`,
    path: `/api/batches/${"id" in mixed ? mixed.id : "{from}"}/reading`,
    from: "key" in mixed ? mixed.key : undefined,
    body: { on: today, value, unit: "µS/cm", compensated: true, temperature_unit: "°C", note: "" },
  })
