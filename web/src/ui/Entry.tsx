import { Field, Input, Textarea } from "@chakra-ui/react"
import { besideField, inField, typedIn } from "./typed"

/** A field outside a form library: its words, what stands in it, and the sentence if it was refused. */
export function Entry({
  label,
  unit = "",
  value,
  onValue,
  type = "text",
  numeric,
  placeholder,
  w,
  problem,
  lines,
}: {
  label: string
  unit?: string
  value: string
  onValue: (value: string) => void
  type?: "text" | "date"
  numeric?: boolean
  placeholder?: string
  w?: string
  problem?: string
  lines?: number
}) {
  const shared = {
    bg: "bg.panel",
    placeholder,
    value: inField(value, unit),
    onChange: (e: React.ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) =>
      onValue(unit ? typedIn(e.target.value, unit) : e.target.value),
  }
  return (
    <Field.Root invalid={!!problem} w={w} flex={w ? undefined : "1 1 130px"}>
      <Field.Label fontSize="sm">{unit ? `${label}, ${besideField(unit)}` : label}</Field.Label>
      {lines ? (
        <Textarea rows={lines} {...shared} />
      ) : (
        <Input
          {...shared}
          type={type}
          minH="48px"
          autoComplete="off"
          inputMode={numeric ? "decimal" : undefined}
        />
      )}
      {problem && (
        <Field.ErrorText color="state.stop" fontSize="sm">
          {problem}
        </Field.ErrorText>
      )}
    </Field.Root>
  )
}
