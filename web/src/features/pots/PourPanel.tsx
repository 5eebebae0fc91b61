import { Box, Button, Text } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { Card } from "../../ui/Page"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"
import { PotChoice, PourFields, type PourValues } from "./PourFields"

export type PourSource =
  | { kind: "batch" | "water"; id: number; name: string }
  | { kind: "feed"; name: string; fed: Schemas["FedIn"] }
  | { kind: "else"; name: string }
type Pot = { id: number; code: string; name: string; volume_L: number }

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
  const [queue, setQueue] = useState(() =>
    chosen.length ? chosen : pots.length === 1 ? pots.map((p) => p.id) : [],
  )
  const [poured, setPoured] = useState<number[]>([])
  const notice = useNotice()
  const undo = useUndo()
  const next = queue.find((id) => !poured.includes(id))
  const pot = pots.find((p) => p.id === next)
  const toggle = (id: number) => {
    if (poured.includes(id))
      setPoured(poured.filter((p) => p !== id)) // pressed again: it gets another pour
    else setQueue(queue.includes(id) ? queue.filter((i) => i !== id) : [...queue, id])
  }
  const entry = useEntryForm<PourValues, Schemas["Poured"]>(
    {
      volume: pot ? String(Math.round(pot.volume_L * 1000)) : "",
      route: "",
      runoff_volume: "",
      runoff_ec: "",
      runoff_method: "runoff",
      runoff_pH: "",
      on: today,
      note: "",
      plant_id: "",
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
            runoff_pH: v.runoff_pH,
            note: v.note,
            felt: "",
            by: "",
            gave: source.kind === "else" ? source.name : "",
            fed: source.kind === "feed" ? source.fed : null,
            plant_id: v.plant_id === "" ? null : Number(v.plant_id),
          },
        }),
      ),
    (stored, v, form) => {
      const id = next
      notice({
        text: `${pot?.code ?? "Pot"}: ${v.volume || "a pour"}${v.volume ? " mL" : ""} saved.`,
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
            {queue.length > 1
              ? ` · ${poured.filter((i) => queue.includes(i)).length + 1} of ${queue.length}`
              : ""}
          </Text>
          <PourFields form={entry.form} potId={pot.id} />
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
