import { useQuery } from "@tanstack/react-query"
import { useCallback, useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { metersQuery, useQuantities } from "../../../api/waterQueries"
import { filledAmounts } from "../../../ui/AmountFields"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { amount, readerPen } from "../../../ui/format"
import { useNotice } from "../../../ui/noticeContext"
import { PenReader, type PenValue } from "../../../ui/PenReader"
import { useEntryForm } from "../../../ui/useEntryForm"
import { useUndo } from "../../../ui/useUndo"
import { type Values, TESTS, usual, figured } from "./entry"
import { MeterFields } from "./MeterFields"
import { AlsoTested } from "./AlsoTested"

type Props = { waters: Schemas["WaterOut"][]; today: string; chosen?: number; onClose: () => void }

/** What the pen or a drop test shows, in any unit; the pen's figure becomes EC at 25 °C. */
export function ReadingForm(props: Props) {
  const quantities = useQuantities()
  const meters = useQuery(metersQuery).data?.meters
  if (quantities.length === 0 || meters === undefined) return null
  return <Form {...props} quantities={quantities} meters={meters} />
}

function Form({
  waters,
  today,
  chosen,
  onClose,
  quantities,
  meters,
}: Props & { quantities: Schemas["QuantityOut"][]; meters: Schemas["MeterOut"][] }) {
  const temperatureUnit = useSettings()?.temperature_unit ?? "°C"
  const notice = useNotice()
  const undo = useUndo()
  const [pen, setPen] = useState<PenValue | null>(null)
  const entry = useEntryForm<Values, Schemas["ReadingOut"]>(
    {
      water_id: String(chosen ?? waters[0]?.id ?? ""),
      meter_id: usual(waters, chosen, meters),
      on: today,
      value: "",
      ...readerPen(),
      meter: "yes",
      temperature: "",
      note: "",
      amounts: Object.fromEntries(
        TESTS.map((id) => [
          id,
          { typed: "", unit: quantities.find((q) => q.id === id)?.units[0] ?? "" },
        ]),
      ),
    },
    (v, key) => {
      const meter = meters.find((m) => String(m.id) === v.meter_id)
      const read = pen !== null && v.value === figured(pen.value) ? pen : null
      return answer(
        client.POST("/api/waters/{water_id}/readings", {
          params: { ...keyed(key), path: { water_id: Number(v.water_id) } },
          body: {
            on: v.on,
            value: v.value,
            unit: meter?.unit ?? v.unit,
            scale: meter ? meter.scale : v.unit === "ppm" ? v.scale : null,
            temperature: v.temperature,
            temperature_unit: temperatureUnit,
            compensated: v.meter === "yes",
            meter_id: meter?.id ?? null,
            amounts: filledAmounts(v.amounts),
            origin: read ? "pen" : "typed",
            trace: read?.trace ?? [],
            note: v.note,
          },
        }),
      )
    },
    (r) => {
      notice({
        text:
          r.value === null
            ? "Saved."
            : r.ec25_uS_cm === null
              ? "Saved as it is; not computed, the scale is not known."
              : `Saved: ${amount(r.ec25_uS_cm, "µS/cm")} at ${amount(25, "°C")}.`,
        undo: () => undo("reading", r.id),
      })
      onClose()
    },
  )
  const { form } = entry
  const [unit, meterId, waterId] = form.watch(["unit", "meter_id", "water_id"])
  const meter = meters.find((m) => String(m.id) === meterId)
  const take = useCallback(
    (v: PenValue) => {
      setPen(v)
      form.setValue("value", figured(v.value))
      form.setValue("unit", "µS/cm")
      form.setValue(
        "temperature",
        v.temperature === null ? "" : String(Math.round(v.temperature * 10) / 10),
      )
      form.setValue("meter_id", v.meterId === null ? "" : String(v.meterId))
    },
    [form],
  )
  const needed = meter === undefined || meter.compensation === "none"
  const temperature = (
    <TextField
      form={form}
      name="temperature"
      label="Water temperature"
      unit={temperatureUnit}
      numeric
      hint={
        meter?.compensation === "none"
          ? "Needed: this meter does not correct."
          : "Needed if the meter does not correct."
      }
    />
  )
  return (
    <EntrySheet entry={entry} title="Enter a reading" submit="Save the reading" onCancel={onClose}>
      <SelectField
        form={form}
        name="water_id"
        label="Water"
        choices={waters.map((w) => ({ value: String(w.id), label: w.name }))}
      />
      <TextField
        form={form}
        name="value"
        label="The meter shows"
        hint={
          meter && (
            <span data-own-unit>
              In {meter.unit}, as it shows{meter.calibration ? "; corrected by its checks" : ""}.
            </span>
          )
        }
        numeric
      />
      <MeterFields form={form} meters={meters} meter={meter} unit={unit} />
      {needed && temperature}
      <TextField form={form} name="on" label="Date" type="date" />
      <PenReader into={{ water_id: Number(waterId) }} onValue={take} />
      <AlsoTested form={form}>{!needed && temperature}</AlsoTested>
    </EntrySheet>
  )
}
