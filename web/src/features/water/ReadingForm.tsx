import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useOptions, useSettings } from "../../api/queries"
import { EntrySheet, NoteField, SelectField, TextField } from "../../ui/fields"
import { figure } from "../../ui/format"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"

type Unit = Schemas["EntryIn"]["unit"]
type Values = { water_id: string; on: string; value: string; unit: NonNullable<Unit>; scale: "0.5" | "0.64" | "0.7" | "unknown"; meter: "yes" | "no"; temperature: string; note: string }

/** What the pen shows, in any unit; it becomes EC at 25 °C. */
export function ReadingForm({ waters, today, chosen, onClose }: { waters: Schemas["WaterOut"][]; today: string; chosen?: number; onClose: () => void }) {
  const options = useOptions()
  const temperatureUnit = useSettings()?.temperature_unit ?? "°C"
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<Values, Schemas["ReadingOut"]>(
    { water_id: String(chosen ?? waters[0]?.id ?? ""), on: today, value: "", unit: "µS/cm", scale: "unknown", meter: "yes", temperature: "", note: "" },
    (v, key) =>
      answer(client.POST("/api/waters/{water_id}/readings", {
        params: { ...keyed(key), path: { water_id: Number(v.water_id) } },
        body: { on: v.on, value: v.value, unit: v.unit, scale: v.unit === "ppm" ? v.scale : null, temperature: v.temperature, temperature_unit: temperatureUnit, compensated: v.meter === "yes", note: v.note },
      })),
    (r) => {
      notice({ text: r.ec25_uS_cm === null ? "Kept as it is; not computed, the scale is not known." : `Kept: ${figure(Math.round(r.ec25_uS_cm), 6)} µS/cm at 25 °C.`, undo: () => undo("reading", r.id) })
      onClose()
    },
  )
  const unit = entry.form.watch("unit")
  return (
    <EntrySheet entry={entry} title="Enter a reading" submit="Keep the reading" onCancel={onClose}>
      <SelectField form={entry.form} name="water_id" label="Water" choices={waters.map((w) => ({ value: String(w.id), label: w.name }))} />
      <TextField form={entry.form} name="value" label="The meter shows" numeric />
      <SelectField form={entry.form} name="unit" label="Unit" choices={options?.ec_units ?? ["µS/cm"]} />
      {unit === "ppm" && <SelectField form={entry.form} name="scale" label="ppm scale" hint="Three meters show three ppm for one water." choices={[{ value: "unknown", label: "not known" }, "0.5", "0.64", "0.7"]} />}
      <SelectField form={entry.form} name="meter" label="Meter corrects to 25 °C" choices={[{ value: "yes", label: "yes, by itself" }, { value: "no", label: "no" }]} />
      <TextField form={entry.form} name="temperature" label="Water temperature" unit={temperatureUnit} numeric hint="Needed if the meter does not correct." />
      <TextField form={entry.form} name="on" label="Date" type="date" />
      <NoteField form={entry.form} name="note" label="Note" />
    </EntrySheet>
  )
}
