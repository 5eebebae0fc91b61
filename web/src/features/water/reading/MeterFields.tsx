import { amount } from "../../../ui/format"
import type { Schemas } from "../../../api/client"
import { useOptions } from "../../../api/queries"
import { SelectField } from "../../../ui/fields"
import { type Values } from "./entry"
import type { UseFormReturn } from "react-hook-form"

/** Which meter, or the unit and scale of one that is not entered. */
export function MeterFields({
  form,
  meters,
  meter,
  unit,
}: {
  form: UseFormReturn<Values>
  meters: Schemas["MeterOut"][]
  meter: Schemas["MeterOut"] | undefined
  unit: string
}) {
  const options = useOptions()
  return (
    <>
      {meters.length > 0 && (
        <SelectField
          form={form}
          name="meter_id"
          label="Meter"
          choices={[
            { value: "", label: "another" },
            ...meters.map((m) => ({ value: String(m.id), label: m.name })),
          ]}
        />
      )}
      {!meter && (
        <SelectField
          form={form}
          name="unit"
          label="Unit"
          choices={options?.ec_units ?? ["µS/cm"]}
        />
      )}
      {!meter && unit === "ppm" && (
        <SelectField
          form={form}
          name="scale"
          label="ppm scale"
          hint="Three meters show three ppm for one water."
          choices={[{ value: "unknown", label: "not known" }, "0.5", "0.64", "0.7"]}
        />
      )}
      {!meter && (
        <SelectField
          form={form}
          name="meter"
          label={`Meter corrects to ${amount(25, "°C")}`}
          choices={[
            { value: "yes", label: "yes, by itself" },
            { value: "no", label: "no" },
          ]}
        />
      )}
    </>
  )
}
