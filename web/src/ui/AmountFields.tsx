import { Flex, Input, NativeSelect, Text } from "@chakra-ui/react"
import { Field } from "@chakra-ui/react"
import { useId } from "react"
import { type Path, type UseFormReturn } from "react-hook-form"
import { useQuantities } from "../api/waterQueries"
import { capital } from "./format"

export type AmountValues = { amounts: Record<string, { typed: string; unit: string }> }

/** The filled-in amounts of a form, as the server takes them. */
export const filledAmounts = (amounts: AmountValues["amounts"]) =>
  Object.entries(amounts)
    .filter(([, a]) => a.typed.trim() !== "")
    .map(([quantity, a]) => ({ quantity, typed: a.typed, unit: a.unit }))

/** One line for each quantity: a number, a range such as 5-10, or <0.02; and its unit. */
export function AmountFields<V extends AmountValues>({
  form,
  ids,
}: {
  form: UseFormReturn<V>
  ids: readonly string[]
}) {
  const known = useQuantities()
  const of = useId()
  return (
    <>
      {ids.map((id) => {
        const q = known.find((k) => k.id === id)
        if (!q) return null
        const label = capital(q.label)
        return (
          <Field.Root key={id} maxW="300px" minW="230px">
            <Field.Label fontSize="sm">{label}</Field.Label>
            <Flex gap="1" w="100%">
              <Input
                {...form.register(`amounts.${id}.typed` as Path<V>)}
                inputMode="text"
                autoComplete="off"
                minH="44px"
                bg="bg.panel"
                flex="1 1 80px"
                minW="0"
              />
              {q.units.length > 1 ? (
                <NativeSelect.Root w="125px" flex="none">
                  <NativeSelect.Field
                    {...form.register(`amounts.${id}.unit` as Path<V>)}
                    id={`${of}-${id}-unit`}
                    minH="44px"
                    bg="bg.panel"
                    aria-label={`Unit of ${q.label}`}
                  >
                    {q.units.map((u) => (
                      <option key={u} value={u}>
                        {u}
                      </option>
                    ))}
                  </NativeSelect.Field>
                  <NativeSelect.Indicator aria-hidden />
                </NativeSelect.Root>
              ) : (
                <>
                  <input type="hidden" {...form.register(`amounts.${id}.unit` as Path<V>)} />
                  <Text alignSelf="center" fontSize="sm" color="fg.muted">
                    {q.units[0]}
                  </Text>
                </>
              )}
            </Flex>
          </Field.Root>
        )
      })}
    </>
  )
}
