import type { UseFormReturn } from "react-hook-form"
import { useOptions } from "../../api/queries"
import { SelectField, TextField } from "../../ui/fields"
import type { Values } from "./addPot"
import { hasWaterBelow, WHERE_WATER_GOES } from "./whereWaterGoes"

/** Where its water goes, how often it gets some, and where it stands. */
export function PotWater({ form }: { form: UseFormReturn<Values> }) {
  const options = useOptions()
  return (
    <>
      <SelectField
        form={form}
        name="drainage"
        label="Where water goes"
        choices={WHERE_WATER_GOES}
      />
      {hasWaterBelow(form.watch("drainage")) && (
        <TextField
          form={form}
          name="below_L"
          label="Tray or reservoir holds"
          unit="L"
          numeric
          hint="To the brim; empty: not known."
        />
      )}
      <TextField form={form} name="interval_days" label="Days between waterings" numeric />
      <SelectField
        form={form}
        name="phase"
        label="Phase"
        choices={[{ value: "", label: "not told: the season says" }, ...(options?.phases ?? [])]}
      />
      <TextField form={form} name="place" label="Place" />
      <TextField form={form} name="spot" label="Shelf or spot" />
    </>
  )
}
