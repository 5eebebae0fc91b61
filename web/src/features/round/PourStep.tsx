import { Box, Text } from "@chakra-ui/react"
import { memo, useCallback, useRef, useState } from "react"
import type { Schemas } from "../../api/client"
import { newKey } from "../../api/keys"
import { type Outcome, takeBack } from "../../api/outbox"
import { amount as inUnits, figure } from "../../ui/format"
import { PotRail } from "../../ui/PotRail"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"
import { mark, pour, skip } from "./entries"
import { AmountButtons, PourExtras, type PourValues } from "./PourParts"
import { FeelFirst } from "./FeelFirst"
import { FlushLink } from "./FlushLink"
import type { Mixed } from "./walk"
import { PourFoot } from "./PourFoot"
import { PourHead } from "./PourHead"

type Props = {
  can: Schemas["Can"]
  pot: Schemas["CanPot"]
  row?: Schemas["PotRow"]
  mixed?: Mixed
  today: string
  by: string
  onNext: (poured: number[]) => void
  onBack?: () => void
}
// What a press leaves as it was is not drawn anew: on a slow phone each part takes a press a tenth of its time.
/** One pot: how much, feel first, poured. */
export function PourStep({ can, pot, row, mixed, today, by, onNext, onBack }: Props) {
  const [amount, setAmount] = useState(pot.amount_mL)
  const [plain, setPlain] = useState(false)
  const [more, setMore] = useState(false)
  const notice = useNotice()
  const undo = useUndo()
  const sentAs = useRef("")
  const entry = useEntryForm<PourValues, Outcome>(
    {
      runoff_volume: "",
      runoff_ec: "",
      runoff_method: "runoff",
      runoff_pH: "",
      note: "",
      mark: "",
    },
    async (v, key) => {
      sentAs.current = key
      const outcome = await pour(
        key,
        `${pot.code}: ${figure(amount)} mL`,
        can,
        mixed,
        {
          pot_ids: [pot.pot_id],
          on: today,
          volume: amount,
          route: plain && can.job === "feed" ? null : pot.route,
          runoff_volume: v.runoff_volume,
          runoff_ec: v.runoff_ec,
          runoff_method: v.runoff_method,
          runoff_pH: v.runoff_pH,
          note: v.note,
          felt: plain ? "dry" : amount === pot.amount_mL ? "as planned" : "",
          by,
        },
        plain,
      )
      if (v.mark) await mark(`${key}-mark`, `${pot.code}: ${v.mark}`, pot.pot_id, today, v.mark)
      return outcome
    },
    () => {
      const key = sentAs.current
      notice({
        text: `${pot.code}: ${figure(amount)} mL saved.`,
        undo: () =>
          void takeBack(key).then((a) =>
            (a as Schemas["Poured"] | null)?.pour_ids.forEach((id) => undo("pour", id)),
          ),
      })
      onNext([pot.pot_id])
    },
  )
  const leave = useCallback(() => {
    const key = newKey()
    skip(key, `${pot.code}: still heavy`, [pot.pot_id], today).catch((e: Error) =>
      notice({ text: `${pot.code} is not left: ${e.message}` }),
    )
    notice({
      text: `${pot.code} is left for another day.`,
      undo: () =>
        void takeBack(key).then((a) =>
          (a as Schemas["Skipped"] | null)?.decision_ids.forEach((id) => undo("decision", id)),
        ),
    })
    onNext([])
  }, [pot, today, notice, undo, onNext])
  const onMore = useCallback(() => setMore((m) => !m), [])
  const onPlain = useCallback(() => setPlain((p) => !p), [])
  const conflict = entry.form.formState.errors.note?.message
  return (
    <form
      onSubmit={(e) => void entry.submit(e)}
      noValidate
      style={{ display: "flex", flexDirection: "column", flex: 1 }}
    >
      <PourHead pot={pot} amount={amount} word={plain ? "plain water" : pot.given} />
      <AmountButtons
        amount={amount}
        step={pot.step_mL}
        more={more}
        onAmount={setAmount}
        onMore={onMore}
      />
      {(more || conflict) && <PourExtras form={entry.form} more={more} />}
      {row && !more && <RootZone row={row} />}
      {can.job === "flush" && (
        <Text mt="2">
          {pot.why} <FlushLink potId={pot.pot_id} code={pot.code} />
        </Text>
      )}
      {pot.then && (
        <Text mt="2" fontWeight="semibold">
          {pot.then}
        </Text>
      )}
      <FeelFirst can={can} why={pot.why} plain={plain} onPlain={onPlain} onLeave={leave} />
      {entry.problem && (
        <Text role="alert" color="state.stop" mt="3">
          {entry.problem}
        </Text>
      )}
      <PourFoot pending={entry.pending} onNext={() => onNext([])} onBack={onBack} />
    </form>
  )
}

/** Where its root zone stands, and what room there is. */
const RootZone = memo(function RootZone({ row }: { row: Schemas["PotRow"] }) {
  return (
    <Box mt="4">
      <PotRail row={row} width={330} />
      <Text color="fg.muted">
        {row.reading_uS_cm === null
          ? "No pour yet: the root zone is not known."
          : `Reading about ${inUnits(row.reading_uS_cm, "µS/cm")}, ` +
            `room to ${inUnits(row.ceiling_uS_cm, "µS/cm")}.`}
      </Text>
    </Box>
  )
})
