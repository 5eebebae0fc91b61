// The forms of the quick sums; all of them ask again when the water of the first one changes.
import { readerPen } from "../../ui/format"
import { queryOptions } from "@tanstack/react-query"
import type { FieldValues } from "react-hook-form"
import { answer, client, type Schemas } from "../../api/client"
import { useLiveForm } from "../../ui/useLiveForm"
import {
  askBlend,
  askFeed,
  askFlush,
  askWater,
  type BlendValues,
  type FeedSum,
  type FeedValues,
  type FlushValues,
  type WaterSum,
  type WaterValues,
} from "./sum"

export type Live<V extends FieldValues, A> = ReturnType<typeof useLiveForm<V, A>>
export const waters = queryOptions({
  queryKey: ["water"],
  queryFn: () => answer(client.GET("/api/water")),
})

export function useSums() {
  const pen = readerPen()
  const scale = pen.scale === "unknown" ? "" : pen.scale
  const water = useLiveForm<WaterValues, WaterSum>(
    "sum-water",
    { kind: "mains", value: "", unit: pen.unit, scale, plant: "", thinner: "rain" },
    askWater,
  )
  const w = water.values
  const on = JSON.stringify(w)
  const feed = useLiveForm<FeedValues, FeedSum>(
    `sum-feed ${on}`,
    {
      grade: "13-3-15",
      form: "powder",
      volume: "2",
      strength: "nitrogen",
      value: "40",
      label_rate: "",
      fill: "thinner",
      read: "",
    },
    (v) => askFeed(v, w),
    (v) => !!v.grade && !!v.volume && !!v.value && (v.strength !== "fraction" || !!v.label_rate),
  )
  const blend = useLiveForm<BlendValues, Schemas["Computed_Blend_"]>(
    `sum-blend ${on}`,
    { target: "120", volume: "10" },
    (v) => askBlend(v, w),
    (v) => !!v.target && !!v.volume,
  )
  const flush = useLiveForm<FlushValues, Schemas["Computed_FlushLitres_"]>(
    `sum-flush ${on}`,
    { volume: "1.2", medium_id: "bark_mix", runoff: "1240", target: "400" },
    (v) => askFlush(v, w),
    (v) => !!v.volume && !!v.runoff && !!v.target,
  )
  return { water, feed, blend, flush }
}
export type Sums = ReturnType<typeof useSums>
