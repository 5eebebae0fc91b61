import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useOptions } from "../../api/queries"
import { NoteField, SelectField, TextField } from "../../ui/fields"
import { Card } from "../../ui/Page"
import { PenReader } from "../../ui/PenReader"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"

export type PourSource = { kind: "batch" | "water"; id: number; name: string }
type Pot = { id: number; code: string; name: string; volume_L: number }
type Values = {
  volume: string
  route: string
  runoff_volume: string
  runoff_ec: string
  runoff_method: NonNullable<Schemas["PourIn"]["runoff_method"]>
  on: string
  note: string
}

/** Logs a can to one pot after another: one tap repeats it for the next. */
export function PourPanel({
  pots,
  chosen,
  today,
  source,
  flush = false,
}: {
  pots: Pot[]
  chosen: number[]
  today: string
  source: PourSource
  flush?: boolean
}) {
  const [queue, setQueue] = useState(() => (chosen.length ? chosen : pots.length === 1 ? pots.map((p) => p.id) : []))
  const [poured, setPoured] = useState<number[]>([])
  const options = useOptions()
  const routes = options?.routes ?? ["top"]
  const notice = useNotice()
  const undo = useUndo()
  const next = queue.find((id) => !poured.includes(id))
  const pot = pots.find((p) => p.id === next)
  const toggle = (id: number) => {
    if (poured.includes(id))
      setPoured(poured.filter((p) => p !== id)) // pressed again: it gets another pour
    else setQueue(queue.includes(id) ? queue.filter((i) => i !== id) : [...queue, id])
  }
  const entry = useEntryForm<Values, Schemas["Poured"]>(
    {
      volume: pot ? String(Math.round(pot.volume_L * 1000)) : "",
      route: "",
      runoff_volume: "",
      runoff_ec: "",
      runoff_method: "runoff",
      on: today,
      note: "",
    },
    (v, key) =>
      answer(
        client.POST("/api/pours", {
          params: keyed(key),
          body: {
            pot_ids: next ? [next] : [],
            on: v.on,
            batch_id: source.kind === "batch" ? source.id : null,
            water_id: source.kind === "water" ? source.id : null,
            volume: v.volume,
            volume_unit: "mL",
            route: (v.route || null) as Schemas["PourIn"]["route"],
            flush,
            runoff_volume: v.runoff_volume,
            runoff_ec: v.runoff_ec,
            runoff_unit: "µS/cm",
            runoff_method: v.runoff_method,
            note: v.note,
            felt: "",
            by: "",
          },
        }),
      ),
    (stored, v, form) => {
      const id = next
      notice({
        text: `${pot?.code ?? "Pot"}: ${v.volume || "a pour"}${v.volume ? " mL" : ""} kept.`,
        undo: () => {
          stored.pour_ids.forEach((p) => undo("pour", p))
          setPoured((all) => all.filter((p) => p !== id))
        },
      })
      if (id) setPoured([...poured, id])
      form.reset({ ...v, runoff_volume: "", runoff_ec: "", note: "" })
    },
  )
  return (
    <Card title="Pour" label="Pour">
      {pots.length > 1 && <PotChoice pots={pots} queue={queue} poured={poured} onToggle={toggle} />}
      {pot ? (
        <form onSubmit={(e) => void entry.submit(e)} noValidate>
          <Text fontSize="lg" fontWeight="semibold" mb="2">
            {pot.code} {pot.name}
            {queue.length > 1 ? ` · ${poured.filter((i) => queue.includes(i)).length + 1} of ${queue.length}` : ""}
          </Text>
          <Flex gap="3" wrap="wrap" css={{ "& > *": { flex: "1 1 130px" } }}>
            <TextField form={entry.form} name="volume" label="Volume" unit="mL" numeric />
            <SelectField
              form={entry.form}
              name="route"
              label="Route"
              choices={[{ value: "", label: "as usual" }, ...routes]}
            />
            <TextField
              form={entry.form}
              name="runoff_volume"
              label="Runoff volume"
              unit="mL"
              numeric
              hint="Empty: not measured."
            />
            <TextField
              form={entry.form}
              name="runoff_ec"
              label="Runoff EC"
              unit="µS/cm"
              numeric
              hint="Empty: not measured."
            />
            <SelectField
              form={entry.form}
              name="runoff_method"
              label="What was caught"
              choices={options?.runoff_methods ?? []}
            />
            <TextField form={entry.form} name="on" label="Date" type="date" />
            <PenReader
              into={{ pot_id: pot.id }}
              onValue={(v) => entry.form.setValue("runoff_ec", String(Math.round(v.corrected)))}
            />
            <NoteField form={entry.form} name="note" label="Note" />
          </Flex>
          {entry.problem && (
            <Text role="alert" color="state.stop" mt="2">
              {entry.problem}
            </Text>
          )}
          <Button
            type="submit"
            mt="3"
            minH="56px"
            w={{ base: "100%", md: "auto" }}
            fontSize="lg"
            loading={entry.pending}
          >
            Poured{queue.length > 1 ? `, next pot` : ""}
          </Button>
        </form>
      ) : (
        <Box>
          {queue.length === 0 ? (
            <Text>Choose the pots that get it.</Text>
          ) : (
            <Text role="status">All {queue.length} poured.</Text>
          )}
        </Box>
      )}
    </Card>
  )
}

type ChoiceProps = { pots: Pot[]; queue: number[]; poured: number[]; onToggle: (id: number) => void }

function PotChoice({ pots, queue, poured, onToggle }: ChoiceProps) {
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
          {poured.includes(p.id) ? " ✓" : ""}
        </Button>
      ))}
    </Flex>
  )
}
