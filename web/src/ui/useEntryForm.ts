// A form whose server answers in sentences: they go to their fields, nothing typed is lost, sending twice stores once.
import { useMutation } from "@tanstack/react-query"
import { useRef } from "react"
import {
  type DefaultValues,
  type FieldValues,
  type Path,
  useForm,
  type UseFormReturn,
} from "react-hook-form"
import { newKey } from "../api/keys"
import { ApiProblem } from "../api/problem"
import { useRefreshAll } from "./usePress"

/** What others changed since the form was opened, as it was told: sent again, one's own stands. */
export type Theirs = Record<string, unknown>

export type EntryForm<V extends FieldValues> = {
  form: UseFormReturn<V>
  submit: (e?: React.BaseSyntheticEvent) => Promise<void>
  pending: boolean
  problem: string | null
}

export function useEntryForm<V extends FieldValues, A>(
  defaults: DefaultValues<V>,
  send: (values: V, key: string, theirs: Theirs) => Promise<A>,
  onDone: (answer: A, values: V, form: UseFormReturn<V>) => void,
  gone?: (key: readonly unknown[]) => boolean,
): EntryForm<V> {
  const form = useForm<V>({ defaultValues: defaults })
  const key = useRef(newKey())
  const theirs = useRef<Theirs>({})
  const sending = useRef(false) // a second press comes before the first has been drawn
  const refresh = useRefreshAll(gone)
  const mutation = useMutation<A, ApiProblem, V>({
    mutationFn: (values) => send(values, key.current, theirs.current),
  })
  const accept = async (values: V) => {
    if (sending.current) return
    sending.current = true
    form.clearErrors()
    try {
      const answer = await mutation.mutateAsync(values)
      key.current = newKey()
      theirs.current = {}
      refresh()
      onDone(answer, values, form)
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      theirs.current = { ...theirs.current, ...error.now() }
      const known = Object.entries(error.fields()).filter(([name]) => name in form.getValues())
      for (const [name, message] of known) form.setError(name as Path<V>, { message })
      const first = known[0]
      if (first) form.setFocus(first[0] as Path<V>)
    } finally {
      sending.current = false
    }
  }
  const submit = (e?: React.BaseSyntheticEvent) => form.handleSubmit(accept)(e)
  const error = mutation.error
  const unplaced = error && !Object.keys(error.fields()).some((name) => name in form.getValues())
  return { form, submit, pending: mutation.isPending, problem: unplaced ? error.message : null }
}
