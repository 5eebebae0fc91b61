import type { UseFormReturn } from "react-hook-form"
import { SelectField, TextField } from "../../ui/fields"
import type { Values } from "./look"

/** Which growth was seen, how long it is, and its roots: a resting one wakes by its own numbers. */
export function GrowthFields({ form }: { form: UseFormReturn<Values> }) {
  return (
    <>
      <SelectField
        form={form}
        name="growth"
        label="Growth seen"
        choices={[
          { value: "lead", label: "the leading one" },
          { value: "side", label: "a side growth" },
        ]}
        hint="A side growth wakes nothing."
      />
      <TextField
        form={form}
        name="growth_length"
        label="Its length"
        unit="cm"
        numeric
        hint="Empty: not measured."
      />
      <TextField
        form={form}
        name="all_roots"
        label="Its roots, each"
        unit="cm"
        hint="With spaces between. Empty: not measured."
      />
    </>
  )
}
