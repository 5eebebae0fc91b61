import { Flex, Text } from "@chakra-ui/react"
import type { FieldValues, Path, UseFormReturn } from "react-hook-form"
import { SelectField, TickField } from "../../../ui/fields"

const SIGNS = [
  { value: "roots", label: "roots silver" },
  { value: "wall", label: "no mist on the wall" },
  { value: "finger", label: "dry to the finger" },
  { value: "leaves", label: "leaves slack" },
  { value: "heft", label: "light in the hand" },
]

/** The signs looked at before watering, and how many must say dry. */
export function SignsFields<V extends FieldValues>({ form }: { form: UseFormReturn<V> }) {
  return (
    <>
      <fieldset>
        <Text as="legend" fontSize="sm" fontWeight="medium">
          Signs looked at
        </Text>
        <Flex direction="column">
          {SIGNS.map((s) => (
            <TickField
              key={s.value}
              form={form}
              name={"signs" as Path<V>}
              value={s.value}
              label={s.label}
            />
          ))}
        </Flex>
      </fieldset>
      <SelectField
        form={form}
        name={"least" as Path<V>}
        label="How many must agree"
        choices={["1", "2", "3", "4", "5"]}
      />
    </>
  )
}
