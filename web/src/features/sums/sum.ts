// What the quick sums ask and answer; a water told once flows on to the others.
import { queryOptions } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"

export type WaterSum = Schemas["WaterSum"]
export type FeedSum = Schemas["FeedSum"]
export type WaterIn = Schemas["ToldIn"]

export type WaterValues = {
  kind: string
  value: string
  unit: string
  scale: string
  plant: string
  thinner: string
}
export type FeedValues = {
  grade: string
  form: string
  volume: string
  strength: string
  value: string
  label_rate: string
  fill: string
  read: string
}
export type BlendValues = { target: string; volume: string }
export type FlushValues = { volume: string; medium_id: string; runoff: string; target: string }

/** The water of the first sum, as every other sum sends it. */
export const told = (v: WaterValues): WaterIn => ({
  kind: v.kind as WaterIn["kind"],
  value: v.value,
  unit: v.unit as WaterIn["unit"],
  scale: (v.scale || null) as WaterIn["scale"],
})
const ofKind = (kind: string): WaterIn => ({ kind: kind as WaterIn["kind"], unit: "µS/cm" })

export const askWater = (v: WaterValues) =>
  answer(
    client.POST("/api/sums/water", {
      body: { water: told(v), plant: v.plant, thinner: ofKind(v.thinner) },
    }),
  )
/** What the sum of a feed asks, and what is saved of it. */
export const feedOf = (v: FeedValues, water: WaterValues): Schemas["FeedSumIn"] => ({
  grade: v.grade,
  form: v.form as "powder" | "liquid",
  volume: v.volume,
  volume_unit: "L",
  strength: v.strength as Schemas["FeedSumIn"]["strength"],
  value: v.value,
  label_rate: v.label_rate,
  label_rate_unit: v.form === "liquid" ? "mL/L" : "g/L",
  water: v.fill === "this" ? told(water) : ofKind(water.thinner),
  scale_step_g: 1,
  read: v.read ? { ...told(water), value: v.read } : null,
})
export const cans = queryOptions({
  queryKey: ["batches"],
  queryFn: () => answer(client.GET("/api/batches")),
})
export const askFeed = (v: FeedValues, water: WaterValues) =>
  answer(
    client.POST("/api/sums/feed", {
      body: feedOf(v, water),
    }),
  )
export const askBlend = (v: BlendValues, water: WaterValues) =>
  answer(
    client.POST("/api/sums/blend", {
      body: {
        first: told(water),
        second: ofKind(water.thinner),
        target: v.target,
        volume: v.volume,
        volume_unit: "L",
      },
    }),
  )
export const askFlush = (v: FlushValues, water: WaterValues) =>
  answer(
    client.POST("/api/sums/flush", {
      body: {
        volume: v.volume,
        volume_unit: "L",
        medium_id: v.medium_id,
        runoff: { ...told(water), value: v.runoff },
        target: v.target,
        water: ofKind(water.thinner),
      },
    }),
  )

/** A range as one number where it is one. */
export const span = (low: number, high: number, write: (n: number) => string) =>
  write(low) === write(high) ? write(low) : `${write(low)} to ${write(high)}`
