import { Field, Flex, Input, NativeSelect, Textarea } from "@chakra-ui/react"
import type { ReactNode } from "react"
import { type FieldValues, type Path, useController, type UseFormReturn } from "react-hook-form"
import { besideField, inField, typedIn } from "./typed"

type FieldProps<V extends FieldValues> = {
  form: UseFormReturn<V>
  name: Path<V>
  label: string
  hint?: ReactNode
}

const message = <V extends FieldValues>(form: UseFormReturn<V>, name: Path<V>) =>
  form.getFieldState(name, form.formState).error?.message

/** Label, control, hint and the server's sentence for one field. */
function Labelled<V extends FieldValues>({
  form,
  name,
  label,
  hint,
  children,
  w,
  own,
}: FieldProps<V> & { children: ReactNode; w?: string; own?: boolean }) {
  const error = message(form, name)
  return (
    <Field.Root invalid={!!error} w={w} data-own-unit={own || undefined}>
      <Field.Label fontSize="sm">{label}</Field.Label>
      {children}
      {hint && <Field.HelperText>{hint}</Field.HelperText>}
      {error && (
        <Field.ErrorText color="state.stop" fontSize="sm">
          {error}
        </Field.ErrorText>
      )}
    </Field.Root>
  )
}

type TextProps<V extends FieldValues> = FieldProps<V> & {
  numeric?: boolean
  type?: "text" | "date" | "time"
  unit?: string
  own?: boolean
  placeholder?: string
}

/** A line to type in. A `unit` that the reader chooses is shown and typed as chosen; `own`: that of an instrument
 * or a bottle stays. */
export function TextField<V extends FieldValues>(props: TextProps<V>) {
  const { form, name, label, hint, numeric, type = "text", unit = "", own, placeholder } = props
  if (!own && besideField(unit) !== unit) return <ChosenUnit {...props} unit={unit} />
  return (
    <Labelled
      form={form}
      name={name}
      label={unit ? `${label}, ${unit}` : label}
      hint={hint}
      own={own}
    >
      <Input
        {...form.register(name)}
        type={type}
        inputMode={numeric ? "decimal" : undefined}
        autoComplete="off"
        placeholder={placeholder}
        bg="bg.panel"
        minH="44px"
      />
    </Labelled>
  )
}

function ChosenUnit<V extends FieldValues>(props: TextProps<V> & { unit: string }) {
  const { form, name, label, hint, unit, placeholder } = props
  const { field } = useController({ name, control: form.control })
  return (
    <Labelled form={form} name={name} label={`${label}, ${besideField(unit)}`} hint={hint}>
      <Input
        {...field}
        value={inField(String(field.value ?? ""), unit)}
        onChange={(e) => field.onChange(typedIn(e.target.value, unit))}
        inputMode="decimal"
        autoComplete="off"
        placeholder={placeholder}
        bg="bg.panel"
        minH="44px"
      />
    </Labelled>
  )
}

export function NoteField<V extends FieldValues>({ form, name, label, hint }: FieldProps<V>) {
  return (
    <Labelled form={form} name={name} label={label} hint={hint}>
      <Textarea {...form.register(name)} rows={2} bg="bg.panel" />
    </Labelled>
  )
}

export type Choice = { value: string; label: string }

/** A list to choose from. Held by the form, so that a choice stands though its list arrives later. */
export function SelectField<V extends FieldValues>({
  form,
  name,
  label,
  hint,
  choices,
  own,
}: FieldProps<V> & { choices: readonly (Choice | string)[]; own?: boolean }) {
  const { field } = useController({ name, control: form.control })
  return (
    <Labelled form={form} name={name} label={label} hint={hint} own={own}>
      <NativeSelect.Root>
        <NativeSelect.Field {...field} bg="bg.panel" minH="44px">
          {choices.map((c) =>
            typeof c === "string" ? (
              <option key={c} value={c}>
                {c}
              </option>
            ) : (
              <option key={c.value} value={c.value}>
                {c.label}
              </option>
            ),
          )}
        </NativeSelect.Field>
        <NativeSelect.Indicator aria-hidden />
      </NativeSelect.Root>
    </Labelled>
  )
}

export function TickField<V extends FieldValues>({
  form,
  name,
  label,
  value,
}: FieldProps<V> & { value?: string }) {
  return (
    <Flex asChild align="center" gap="2.5" minH="44px" cursor="pointer">
      <label>
        <input
          type="checkbox"
          value={value}
          {...form.register(name)}
          style={{ width: 20, height: 20 }}
        />
        <span>{label}</span>
      </label>
    </Flex>
  )
}
