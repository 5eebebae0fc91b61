import type { FieldValues, Path, UseFormReturn } from "react-hook-form"
import { SelectField } from "../../../ui/fields"
import { usePlants } from "./usePlants"

/** Which of several plants in a pot is meant; nothing where there is only one. */
export function WhichPlant<V extends FieldValues>({
  form,
  name,
  potId,
  whole,
}: {
  form: UseFormReturn<V>
  name: Path<V>
  potId: number
  whole: string
}) {
  const plants = usePlants(potId) ?? []
  if (plants.length < 2) return null
  return (
    <SelectField
      form={form}
      name={name}
      label="Which plant"
      choices={[
        { value: "", label: whole },
        ...plants.map((p) => ({
          value: String(p.id),
          label: p.label ? `${p.kind}, ${p.label}` : p.kind,
        })),
      ]}
    />
  )
}
