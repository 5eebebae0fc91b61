import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { potsQuery } from "../../api/queries"
import { TextField } from "../../ui/fields"
import { figure } from "../../ui/format"
import { PotRail } from "../../ui/PotRail"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"
import { stepOf } from "./steps"

type Props = { can: Schemas["Can"]; pot: Schemas["CanPot"]; batchId?: number; today: string; onNext: (poured: boolean) => void; onBack?: () => void }
type Values = { runoff_volume: string; runoff_ec: string; note: string }

/** One pot: how much, feel first, poured. */
export function PourStep({ can, pot, batchId, today, onNext, onBack }: Props) {
  const [amount, setAmount] = useState(pot.amount_mL)
  const [plain, setPlain] = useState(false)
  const [more, setMore] = useState(false)
  const row = useQuery(potsQuery).data?.pots.find((r) => r.id === pot.pot_id)
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<Values, Schemas["Poured"]>(
    { runoff_volume: "", runoff_ec: "", note: "" },
    (v, key) =>
      answer(client.POST("/api/pours", {
        params: keyed(key),
        body: { pot_ids: [pot.pot_id], on: today, batch_id: plain ? null : (batchId ?? null), water_id: plain || !batchId ? can.water_id : null, volume: amount, volume_unit: "mL", route: can.job === "leaf spray" ? "leaf spray" : null, flush: can.job === "flush" && !plain, runoff_volume: v.runoff_volume, runoff_ec: v.runoff_ec, runoff_unit: "µS/cm", note: v.note },
      })),
    (stored) => {
      notice({ text: `${pot.code}: ${figure(amount)} mL kept.`, undo: () => stored.pour_ids.forEach((id) => undo("pour", id)) })
      onNext(true)
    },
  )
  const step = stepOf(pot.amount_mL)
  const conflict = entry.form.formState.errors.note?.message
  return (
    <form onSubmit={(e) => void entry.submit(e)} noValidate style={{ display: "flex", flexDirection: "column", flex: 1 }}>
      <Heading as="h1" fontSize="2.1rem" lineHeight="1.15" mt="2">{pot.code}<br />{pot.name}</Heading>
      <Text color="fg.muted" fontSize="lg">{pot.place}{pot.isolated ? " · isolated: clean hands after" : ""}</Text>
      <Flex align="baseline" gap="2" mt="4">
        <Text as="output" aria-live="polite" fontSize="64px" lineHeight="1" fontWeight="bold">{figure(amount)}</Text>
        <Text fontSize="2xl" fontWeight="semibold">mL</Text>
        <Text ml="auto" color="fg.muted" fontSize="lg">{plain ? "plain water" : can.job === "flush" ? "flush" : pot.route === "tray" ? "into the tray" : can.job === "feed" ? "feed" : can.job === "leaf spray" ? "leaf spray" : "plain water"}</Text>
      </Flex>
      <Flex gap="2.5" mt="4">
        <Button type="button" variant="outline" flex="1" minH="56px" fontSize="lg" aria-label={`${step} mL less`} onClick={() => setAmount(Math.max(step, amount - step))}>− {step}</Button>
        <Button type="button" variant="outline" flex="1" minH="56px" fontSize="lg" aria-label={`${step} mL more`} onClick={() => setAmount(amount + step)}>+ {step}</Button>
        <Button type="button" variant="outline" flex="1" minH="56px" fontSize="lg" aria-expanded={more} onClick={() => setMore(!more)}>Runoff</Button>
      </Flex>
      {(more || conflict) && (
        <Flex gap="3" mt="3" wrap="wrap">
          {more && <Box flex="1 1 130px"><TextField form={entry.form} name="runoff_volume" label="Ran out" unit="mL" numeric /></Box>}
          {more && <Box flex="1 1 130px"><TextField form={entry.form} name="runoff_ec" label="It reads" unit="µS/cm" numeric /></Box>}
          <Box flex="1 1 100%"><TextField form={entry.form} name="note" label="Note" /></Box>
        </Flex>
      )}
      {row && (
        <Box mt="4">
          <PotRail row={row} width={330} />
          <Text color="fg.muted">{row.reading_uS_cm === null ? "No pour yet: the root zone is not known." : `Reading about ${figure(Math.round(row.reading_uS_cm), 6)} µS/cm, room to ${row.ceiling_uS_cm}.`}</Text>
        </Box>
      )}
      {can.job === "flush" && <Text mt="2">{pot.why}</Text>}
      <Box bg="bg.inset" borderWidth="1px" borderRadius="lg" p="3" mt="4">
        <Text><b>Feel first.</b> {can.job === "feed" ? "If the pot is light and the medium dry, give plain water today." : "If the pot is still heavy, leave it."}</Text>
        <Flex gap="2.5" mt="2" wrap="wrap">
          {can.job === "feed" && <Button type="button" size="sm" minH="44px" variant={plain ? "solid" : "outline"} aria-pressed={plain} onClick={() => setPlain(!plain)}>Dry: plain water</Button>}
          <Button type="button" size="sm" minH="44px" variant="outline" onClick={() => onNext(false)}>Still heavy: skip</Button>
        </Flex>
      </Box>
      {entry.problem && <Text role="alert" color="state.stop" mt="3">{entry.problem}</Text>}
      <Box mt="auto" pt="5">
        <Button type="submit" w="100%" minH="72px" fontSize="xl" loading={entry.pending}>Poured</Button>
        {onBack && <Button type="button" variant="ghost" w="100%" mt="1" onClick={onBack}>Back one step</Button>}
      </Box>
    </form>
  )
}
