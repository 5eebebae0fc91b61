// A form that asks as it is typed: the answer follows the values with no button, a refusal goes to its field.
import { keepPreviousData, useQuery } from "@tanstack/react-query"
import { useEffect, useState } from "react"
import { type DefaultValues, type FieldValues, type Path, useForm, useWatch } from "react-hook-form"
import { ApiProblem } from "../api/problem"

/** A value once it has stood still for some time. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms)
    return () => clearTimeout(timer)
  }, [value, ms])
  return settled
}

export function useLiveForm<V extends FieldValues, A>(
  key: string,
  defaults: DefaultValues<V>,
  ask: (values: V) => Promise<A>,
  enough: (values: V) => boolean = () => true,
) {
  const form = useForm<V>({ defaultValues: defaults })
  const values = useWatch({ control: form.control }) as V
  const text = useSettled(JSON.stringify(values), 250)
  const asked = JSON.parse(text) as V
  const ready = enough(asked)
  const query = useQuery<A, ApiProblem>({
    queryKey: ["live", key, text],
    queryFn: () => ask(asked),
    enabled: ready,
    placeholderData: keepPreviousData,
    retry: false,
  })
  const problem = ready && query.error instanceof ApiProblem ? query.error : null
  useEffect(() => {
    form.clearErrors()
    for (const [name, message] of Object.entries(problem?.fields() ?? {})) {
      if (name in form.getValues()) form.setError(name as Path<V>, { message })
    }
  }, [form, problem])
  const placed = problem
    ? Object.keys(problem.fields()).some((name) => name in form.getValues())
    : false
  return {
    form,
    values,
    answer: ready && !problem ? query.data : undefined,
    problem: problem && !placed ? problem.message : null,
    refused: !!problem,
  }
}
