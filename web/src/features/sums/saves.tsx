// Where each sum is saved: a reading of a water, a can, the reading of a can, what ran off a pot.
import { useQuery } from "@tanstack/react-query"
import { answer, client, keyed } from "../../api/client"
import { potNamesQuery, useOptions } from "../../api/queries"
import { day, span } from "../../ui/format"
import { SaveTo } from "./SaveTo"
import { cans, type FeedValues, feedOf, type FlushValues, told, type WaterValues } from "./sum"
import { waters as watersQuery } from "./useSums"

/** Waters of the collection, as a choice. */
export const useWaters = () =>
  (useQuery(watersQuery).data?.waters ?? []).map((w) => ({ value: String(w.id), label: w.name }))

/** What the pen showed, without a temperature: it corrects by itself. */
const shown = (v: WaterValues, on: string) => ({
  on,
  value: v.value,
  unit: v.unit as "ppm",
  scale: v.unit === "ppm" ? (v.scale as "0.5") || ("unknown" as const) : null,
  temperature_unit: "°C" as const,
  compensated: true,
  note: "",
})

export function SaveReading({ values }: { values: WaterValues }) {
  const today = useOptions()?.today ?? ""
  return (
    <SaveTo
      label="Save as a reading"
      of="Reading of"
      choices={useWaters()}
      send={(water_id, key) =>
        answer(
          client.POST("/api/waters/{water_id}/readings", {
            params: { ...keyed(key), path: { water_id } },
            body: { ...shown(values, today), amounts: [], origin: "typed", trace: [] },
          }),
        )
      }
      undone={(r) => ["reading", r.id]}
      done={() => "Saved as a reading."}
    />
  )
}

export function SaveCan({ values, water }: { values: FeedValues; water: WaterValues }) {
  return (
    <SaveTo
      label="Save as a can"
      of="Filled with"
      choices={useWaters()}
      send={(water_id, key) =>
        answer(
          client.POST("/api/sums/feed/can", {
            params: keyed(key),
            body: { water_id, feed: feedOf({ ...values, read: "" }, water) },
          }),
        )
      }
      undone={(can) => ["batch", can.id]}
      done={(can) =>
        [
          `${can.name} saved as a can: expect ${span(can.predicted_low_uS_cm, can.predicted_high_uS_cm, "µS/cm")}.`,
          can.feed_added && `${can.feed} stands on the shelf.`,
        ]
          .filter(Boolean)
          .join(" ")
      }
    />
  )
}

export function SaveCanReading({ read, water }: { read: string; water: WaterValues }) {
  const today = useOptions()?.today ?? ""
  const made = useQuery(cans).data ?? []
  return (
    <SaveTo
      label="Save as its reading"
      of="Reading of can"
      choices={made
        .slice(0, 12)
        .map((b) => ({ value: String(b.id), label: `${b.name}, ${day(b.made_on, today)}` }))}
      send={(batch_id, key) =>
        answer(
          client.POST("/api/batches/{batch_id}/reading", {
            params: { ...keyed(key), path: { batch_id } },
            body: { ...shown({ ...water, value: read }, today), meter_id: null },
          }),
        )
      }
      done={(judged) => `Saved. ${judged.check.sentence}`}
    />
  )
}

export function SaveRunoff({ values, water }: { values: FlushValues; water: WaterValues }) {
  const today = useOptions()?.today ?? ""
  const pots = useQuery(potNamesQuery).data ?? []
  const read = told({ ...water, value: values.runoff })
  if (water.unit !== "µS/cm" && water.unit !== "mS/cm") return null
  return (
    <SaveTo
      label="Save the runoff"
      of="Runoff of pot"
      choices={pots.map((p) => ({ value: String(p.id), label: `${p.code} ${p.name}` }))}
      send={(pot_id, key) =>
        answer(
          client.POST("/api/pots/{pot_id}/readings", {
            params: { ...keyed(key), path: { pot_id } },
            body: {
              on: today,
              ec: read.value,
              unit: water.unit as "µS/cm",
              method: "pour-through",
              crust: "",
              colour: "",
              note: "",
            },
          }),
        )
      }
      undone={(r) => ["runoff", r.id]}
      done={() => "Saved as what runs off."}
    />
  )
}
