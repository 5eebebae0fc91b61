import { Button, Flex } from "@chakra-ui/react"
import type { UseFormReturn } from "react-hook-form"
import type { Schemas } from "../../api/client"
import { useOptions } from "../../api/queries"
import { NoteField, SelectField, TextField } from "../../ui/fields"
import { Done } from "../../ui/Signs"
import { WhichPlant } from "./plants/WhichPlant"
import { PenReader } from "../../ui/PenReader"

export type PourValues = {
  volume: string
  route: string
  runoff_volume: string
  runoff_ec: string
  runoff_method: NonNullable<Schemas["PourIn"]["runoff_method"]>
  runoff_pH: string
  on: string
  note: string
  plant_id: string
}

/** What was poured on one pot, and what ran out. */
export function PourFields({ form, potId }: { form: UseFormReturn<PourValues>; potId: number }) {
  const options = useOptions()
  const routes = options?.routes ?? ["top"]
  return (
    <Flex gap="3" wrap="wrap" css={{ "& > *": { flex: "1 1 130px" } }}>
      <TextField form={form} name="volume" label="Volume" unit="mL" numeric />
      <SelectField
        form={form}
        name="route"
        label="Route"
        choices={[{ value: "", label: "as usual" }, ...routes]}
      />
      <TextField
        form={form}
        name="runoff_volume"
        label="Runoff volume"
        unit="mL"
        numeric
        hint="Empty: not measured."
      />
      <TextField
        form={form}
        name="runoff_ec"
        label="Runoff EC"
        unit="µS/cm"
        numeric
        hint="Empty: not measured."
      />
      <SelectField
        form={form}
        name="runoff_method"
        label="What was caught"
        choices={options?.runoff_methods ?? []}
      />
      <TextField
        form={form}
        name="runoff_pH"
        label="Runoff pH"
        numeric
        hint="Empty: not measured."
      />
      <TextField form={form} name="on" label="Date" type="date" />
      <WhichPlant form={form} name="plant_id" potId={potId} whole="all of the pot" />
      <PenReader
        into={{ pot_id: potId }}
        onValue={(v) => form.setValue("runoff_ec", String(Math.round(v.corrected)))}
      />
      <NoteField form={form} name="note" label="Note" />
    </Flex>
  )
}

type ChoiceProps = {
  pots: { id: number; code: string }[]
  queue: number[]
  poured: number[]
  onToggle: (id: number) => void
}

/** Which pots get it, in the order they are pressed. */
export function PotChoice({ pots, queue, poured, onToggle }: ChoiceProps) {
  return (
    <Flex wrap="wrap" gap="1.5" mb="3" role="group" aria-label="Pots to pour">
      {pots.map((p) => (
        <Button
          key={p.id}
          size="sm"
          minH="40px"
          variant={queue.includes(p.id) ? "solid" : "outline"}
          aria-pressed={queue.includes(p.id)}
          onClick={() => onToggle(p.id)}
        >
          {p.code}
          {poured.includes(p.id) && <Done word="poured" />}
        </Button>
      ))}
    </Flex>
  )
}
