import type { UseFormReturn } from "react-hook-form"
import { SelectField } from "../../ui/fields"
import type { Values } from "./addPot"

const KNOWN = [{ value: "", label: "not known" }, "no", "yes"]

/** What a medium came with: feed, and lime or gypsum that dissolve for years. */
export function MediumFacts({ form }: { form: UseFormReturn<Values> }) {
  return (
    <>
      <SelectField
        form={form}
        name="medium_charged"
        label="Medium came with feed in it"
        choices={KNOWN}
      />
      <SelectField
        form={form}
        name="medium_limed"
        label="Lime or gypsum in it"
        choices={KNOWN}
        hint="It sets a floor no flush goes under."
      />
    </>
  )
}
