import { Button, Text } from "@chakra-ui/react"
import { useMutation } from "@tanstack/react-query"
import type { UseFormReturn } from "react-hook-form"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import type { ApiProblem } from "../../api/problem"
import { TextField } from "../../ui/fields"
import type { Values } from "./labelFields"

/** "16 16 16", "161616": read, shown, and filled in only when confirmed. */
export function GradeField({ form }: { form: UseFormReturn<Values> }) {
  const read = useMutation<Schemas["Computed_Grade_"], ApiProblem>({
    mutationFn: () =>
      answer(client.POST("/api/products/grade", { body: { text: form.getValues("grade") } })),
  })
  const r = read.data?.result
  const take = () => {
    if (!r) return
    for (const [key, value] of [
      ["n_total_pct", r.n_pct],
      ["p_pct", r.p_pct],
      ["k_pct", r.k_pct],
    ] as const)
      form.setValue(key, String(value))
    read.reset()
  }
  return (
    <div>
      <TextField
        form={form}
        name="grade"
        label="Grade, if there is one"
        hint="16-16-16, 16 16 16 or 161616."
      />
      <Button size="sm" mt="1.5" minH="40px" variant="outline" onClick={() => read.mutate()}>
        Read the grade
      </Button>
      {read.isError && (
        <Text role="alert" color="state.stop" fontSize="sm">
          {read.error.message}
        </Text>
      )}
      {r && (
        <Text role="status" fontSize="sm" mt="1">
          {r.sentence}{" "}
          <Button size="sm" minH="40px" onClick={take}>
            Yes, that is it
          </Button>
        </Text>
      )}
    </div>
  )
}
