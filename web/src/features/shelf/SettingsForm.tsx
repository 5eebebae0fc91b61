import { Text } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { SelectField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"

type Settings = Schemas["SettingsOut"]
type Values = Required<
  Pick<
    Settings,
    | "ec_unit"
    | "ppm_scale"
    | "temperature_unit"
    | "volume_unit"
    | "mass_unit"
    | "length_unit"
    | "date_order"
    | "hemisphere"
    | "theme"
    | "water_order"
    | "collection_name"
  >
> & { scale_step_g: string; syringe_step_mL: string }

/** The choices alone, without what the server works out of them. */
function choicesOf(settings: Settings): Schemas["Settings"] {
  const { display, fallen_back, ...choices } = settings
  void [display, fallen_back]
  return choices
}

/** Units, hemisphere, theme, scale and syringe. */
export function SettingsForm({ settings }: { settings: Settings }) {
  const notice = useNotice()
  const [seen, setSeen] = useState(() => choicesOf(settings))
  const entry = useEntryForm<Values, Settings>(
    {
      ec_unit: settings.ec_unit ?? "µS/cm",
      ppm_scale: settings.ppm_scale ?? "0.5",
      temperature_unit: settings.temperature_unit ?? "°C",
      volume_unit: settings.volume_unit ?? "L",
      mass_unit: settings.mass_unit ?? "g",
      length_unit: settings.length_unit ?? "cm",
      date_order: settings.date_order ?? "day first",
      hemisphere: settings.hemisphere ?? "north",
      theme: settings.theme ?? "system",
      water_order: settings.water_order ?? "own",
      collection_name: settings.collection_name ?? "",
      scale_step_g: String(settings.scale_step_g ?? 0.1),
      syringe_step_mL: String(settings.syringe_step_mL ?? 0.5),
    },
    (v, key, theirs) => {
      const body = { ...v, seen: { ...seen, ...theirs } }
      return answer(client.PUT("/api/settings", { params: keyed(key), body }))
    },
    (stored) => {
      setSeen(choicesOf(stored))
      notice({ text: "Settings saved." })
    },
  )
  const f = entry.form
  return (
    <EntrySheet entry={entry} title="Settings" submit="Save the settings">
      {settings.fallen_back?.map((sentence) => (
        <Text key={sentence} role="alert" color="state.caution">
          {sentence}
        </Text>
      ))}
      <TextField form={f} name="collection_name" label="Name of the collection" />
      <TextField form={f} name="scale_step_g" label="Scale step" unit="g" numeric />
      <TextField form={f} name="syringe_step_mL" label="Syringe step" unit="mL" numeric />
      <SelectField
        form={f}
        name="ec_unit"
        label="Conductivity in"
        choices={["µS/cm", "mS/cm", "ppm"]}
      />
      <SelectField form={f} name="ppm_scale" label="ppm scale" choices={["0.5", "0.64", "0.7"]} />
      <SelectField form={f} name="temperature_unit" label="Temperature in" choices={["°C", "°F"]} />
      <SelectField
        form={f}
        name="volume_unit"
        label="Volume in"
        choices={["L", "US gal", "imp gal"]}
      />
      <SelectField form={f} name="mass_unit" label="Weight in" choices={["g", "oz"]} />
      <SelectField form={f} name="length_unit" label="Length in" choices={["cm", "in"]} />
      <SelectField
        form={f}
        name="date_order"
        label="Dates"
        choices={[
          { value: "day first", label: "23 Nov 2026" },
          { value: "month first", label: "Nov 23, 2026" },
          { value: "ISO", label: "2026-11-23" },
        ]}
      />
      <SelectField
        form={f}
        name="hemisphere"
        label="Seasons"
        choices={[
          { value: "north", label: "northern" },
          { value: "south", label: "southern" },
          { value: "no seasons", label: "none (lamps)" },
        ]}
      />
      <SelectField
        form={f}
        name="water_order"
        label="Among waters that are fit"
        choices={[
          { value: "own", label: "my own order" },
          { value: "purest", label: "the purest first" },
          { value: "cheapest", label: "the cheapest first" },
        ]}
      />
      <SelectField form={f} name="theme" label="Theme" choices={["system", "light", "dark"]} />
    </EntrySheet>
  )
}
