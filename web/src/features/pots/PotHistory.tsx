import type { UseFormReturn } from "react-hook-form"
import { TextField, TickField } from "../../ui/fields"
import type { Values } from "./addPot"

/** Since when it is here, what it last got, and what else is known of it. */
export function PotHistory({ form }: { form: UseFormReturn<Values> }) {
  return (
    <>
      <TextField
        form={form}
        name="arrived_on"
        label="Arrived on"
        type="date"
        hint="Empty: long here."
      />
      <TextField
        form={form}
        name="watered_on"
        label="Last watered on"
        type="date"
        hint="Empty: not known, so look first."
      />
      <TextField
        form={form}
        name="fed_on"
        label="Last fed on"
        type="date"
        hint="Empty: not known, so plain water first."
      />
      <TextField form={form} name="source" label="Supplier" hint="Who it came from." />
      <TextField form={form} name="label" label="Name on the plant’s label" />
      <TextField form={form} name="count" label="Plants alike in it" numeric />
      <TextField form={form} name="tags" label="Tags" hint="With commas between." />
      <TickField form={form} name="isolated" label="Isolated from the others" />
    </>
  )
}
