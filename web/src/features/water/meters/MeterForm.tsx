import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { useOptions } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useEntryForm } from "../../../ui/useEntryForm"

type In = Schemas["MeterIn"]
type Values = {
  name: string
  unit: NonNullable<In["unit"]>
  scale: NonNullable<In["scale"]>
  compensation: NonNullable<In["compensation"]>
  alpha_pct_per_C: string
  resolution: string
  accuracy_pct_fs: string
  range_uS_cm: string
  device: string
  check_days: string
}
const typed = (value: number | null | undefined) =>
  value === null || value === undefined ? "" : String(Number(value.toPrecision(6)))

/** A meter as the form was opened on it. */
const seenOf = (m: Schemas["MeterOut"]): Schemas["MeterIn"] => ({
  name: m.name,
  unit: m.unit,
  scale: m.scale,
  compensation: m.compensation,
  alpha_pct_per_C: m.alpha_pct_per_C,
  resolution: m.resolution,
  accuracy_pct_fs: m.accuracy_pct_fs,
  range_uS_cm: m.range_uS_cm,
  device: m.device,
  check_days: m.check_days,
})

/** What the leaflet says of a meter. */
export function MeterForm({
  meter,
  onClose,
}: {
  meter?: Schemas["MeterOut"]
  onClose: () => void
}) {
  const options = useOptions()
  const [seen] = useState(() => meter && seenOf(meter))
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      name: meter?.name ?? "",
      unit: meter?.unit ?? "µS/cm",
      scale: meter?.scale ?? "unknown",
      compensation: meter?.compensation ?? "linear",
      alpha_pct_per_C: typed(meter?.alpha_pct_per_C ?? 2),
      resolution: typed(meter?.resolution ?? 1),
      accuracy_pct_fs: typed(meter?.accuracy_pct_fs),
      range_uS_cm: typed(meter?.range_uS_cm),
      device: meter?.device ?? "",
      check_days: typed(meter?.check_days),
    },
    (v, key, theirs) => {
      const body = { ...v, scale: v.unit === "ppm" ? v.scale : null }
      return meter
        ? answer(
            client.PUT("/api/meters/{meter_id}", {
              params: { ...keyed(key), path: { meter_id: meter.id } },
              body: { ...body, seen: seen ? { ...seen, ...theirs } : null },
            }),
          )
        : answer(client.POST("/api/meters", { params: keyed(key), body }))
    },
    onClose,
  )
  const unit = entry.form.watch("unit")
  return (
    <EntrySheet
      entry={entry}
      title={meter ? `Change ${meter.name}` : "Add a meter"}
      submit="Save the meter"
      onCancel={onClose}
    >
      <TextField form={entry.form} name="name" label="Name" placeholder="Pen at the bench" />
      <SelectField
        form={entry.form}
        name="unit"
        label="It shows"
        choices={options?.ec_units ?? ["µS/cm"]}
      />
      {unit === "ppm" && (
        <SelectField
          form={entry.form}
          name="scale"
          label="ppm scale"
          hint="“Which scale is it?” finds it."
          choices={[{ value: "unknown", label: "not known" }, "0.5", "0.64", "0.7"]}
        />
      )}
      <SelectField
        form={entry.form}
        name="compensation"
        label="Temperature"
        choices={[
          { value: "linear", label: "corrects by a fixed percentage" },
          { value: "natural-water", label: "corrects as natural water" },
          { value: "none", label: "does not correct" },
        ]}
      />
      <TextField
        form={entry.form}
        name="alpha_pct_per_C"
        label="Percent a degree"
        numeric
        hint="Most pens: 2."
      />
      <TextField
        form={entry.form}
        name="resolution"
        label="Smallest step it shows"
        unit={unit}
        own
        numeric
      />
      <TextField
        form={entry.form}
        name="accuracy_pct_fs"
        label="Accuracy"
        unit="% of full scale"
        numeric
        hint="From the leaflet, if it says."
      />
      <TextField form={entry.form} name="range_uS_cm" label="Full scale" unit="µS/cm" own numeric />
      <TextField
        form={entry.form}
        name="check_days"
        label="Days between checks"
        unit="d"
        numeric
        hint="Empty: learnt from its drift."
      />
      <TextField
        form={entry.form}
        name="device"
        label="Name on the line"
        hint="Of a pen or logger that sends by itself."
      />
    </EntrySheet>
  )
}
