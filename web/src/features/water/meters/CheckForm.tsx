import { amount } from "../../../ui/format"
import { Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { SelectField, TextField, TickField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { useUndo } from "../../../ui/useUndo"

type Values = {
  on: string
  standard: "84" | "1413" | "12 880" | "own"
  own_uS_cm: string
  temperature: string
  shown: string
  adjusted: string[]
}

/** One dip into a standard. Two on a day, one low and one high, give slope and offset. */
export function CheckForm({
  meter,
  standards,
  today,
  onClose,
}: {
  meter: Schemas["MeterOut"]
  standards: Record<string, number>
  today: string
  onClose: () => void
}) {
  const unit = useSettings()?.temperature_unit ?? "°C"
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<Values, Schemas["MeterOut"]>(
    { on: today, standard: "1413", own_uS_cm: "", temperature: "", shown: "", adjusted: [] },
    (v, key) =>
      answer(
        client.POST("/api/meters/{meter_id}/checks", {
          params: { ...keyed(key), path: { meter_id: meter.id } },
          body: { ...v, temperature_unit: unit, adjusted: v.adjusted.length > 0 },
        }),
      ),
    (m) => {
      const last = m.checks[0]
      notice({
        text: m.calibration?.sentence ?? "Saved.",
        undo: last ? () => undo("check", last.id) : undefined,
      })
      onClose()
    },
  )
  const own = entry.form.watch("standard") === "own"
  return (
    <EntrySheet
      entry={entry}
      title={`Check ${meter.name} in a standard`}
      submit="Save the check"
      onCancel={onClose}
    >
      <SelectField
        form={entry.form}
        name="standard"
        label={`Standard, µS/cm at ${amount(25, "°C")}`}
        own
        choices={[...Object.keys(standards), { value: "own", label: "another" }]}
      />
      {own && (
        <TextField
          form={entry.form}
          name="own_uS_cm"
          label="Printed on the bottle"
          unit="µS/cm"
          own
          numeric
        />
      )}
      <TextField
        form={entry.form}
        name="shown"
        label="The meter shows"
        unit={meter.unit}
        own
        numeric
      />
      <TextField
        form={entry.form}
        name="temperature"
        label="Temperature of the standard"
        unit={unit}
        numeric
        hint={
          meter.compensation === "none"
            ? "Needed: this meter does not correct."
            : "The standard is corrected for it as well."
        }
      />
      <TextField form={entry.form} name="on" label="Date" type="date" />
      <TickField
        form={entry.form}
        name="adjusted"
        value="yes"
        label="I set the meter to the standard after reading it"
      />
      <Text fontSize="sm" color="fg.muted">
        Fresh standard, rinsed pen, a minute’s wait. Then a second one near the waters you read.
      </Text>
    </EntrySheet>
  )
}
