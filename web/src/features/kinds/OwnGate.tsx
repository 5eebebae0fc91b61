import type { UseFormReturn } from "react-hook-form"
import type { KindData } from "./loadKind"
import { TextField } from "../../ui/fields"
import type { Values } from "./ownFigures"

type Props = { form: UseFormReturn<Values>; rest: KindData["profile"]["rest"] }

/** What a resting growth must have before it is watered again. */
export function OwnGate({ form, rest }: Props) {
  return (
    <>
      <TextField
        form={form}
        name="gate_growth_cm"
        label="Wakes with a growth of"
        unit="cm"
        numeric
        hint={`now ${rest.gate_growth_cm ?? 0}`}
      />
      <TextField
        form={form}
        name="gate_roots"
        label="and so many roots"
        numeric
        hint={`now ${rest.gate_roots ?? 1}`}
      />
      <TextField
        form={form}
        name="gate_root_cm"
        label="of"
        unit="cm"
        numeric
        hint={`now ${rest.root_gate_cm ?? "not asked"}`}
      />
    </>
  )
}
