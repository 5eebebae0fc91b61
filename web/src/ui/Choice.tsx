import { NativeSelect } from "@chakra-ui/react"

/** A choice outside a form: one of a few, named for who cannot see it. */
export function Choice({
  label,
  value,
  choices,
  onValue,
}: {
  label: string
  value: string
  choices: { value: string; label: string }[]
  onValue: (value: string) => void
}) {
  return (
    <NativeSelect.Root w="auto" minW="150px">
      <NativeSelect.Field
        aria-label={label}
        minH="44px"
        value={value}
        onChange={(e) => onValue(e.target.value)}
      >
        {choices.map((c) => (
          <option key={c.value} value={c.value}>
            {c.label}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator aria-hidden />
    </NativeSelect.Root>
  )
}
