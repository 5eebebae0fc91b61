import { Box, Button, Flex } from "@chakra-ui/react"
import { useRef } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { type Outcome, post, takeBack } from "../../api/outbox"
import { SelectField, TextField } from "../../ui/fields"
import { useNotice } from "../../ui/noticeContext"
import { PenReader } from "../../ui/PenReader"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"
import { PourFields } from "./PourFields"
import { passesPath } from "./queries"

type Values = {
  volume: string
  runoff_ec: string
  drained: string
  colour: NonNullable<Schemas["PassIn"]["colour"]>
  read_twice: "no" | "yes"
}

/** The next pass: how much, and what the last of it reads. Kept in the phone until Fenwa has it. */
export function PassForm({ f }: { f: Schemas["FlushOut"] }) {
  const notice = useNotice()
  const undo = useUndo()
  const sentAs = useRef("")
  const mL = Math.max(10, Math.round((f.live.result.next_pass_L * 1000) / 10) * 10)
  const entry = useEntryForm<Values, Outcome>(
    { volume: String(mL), runoff_ec: "", drained: "", colour: "", read_twice: "no" },
    async (v, key) => {
      sentAs.current = key
      const outcome = await post({
        key,
        path: passesPath(f.id),
        title: `${f.code}: pass of ${v.volume} mL`,
        body: { ...v, read_twice: v.read_twice === "yes", at: new Date().toISOString() },
      })
      if (outcome.state === "refused") throw outcome.problem
      return outcome
    },
    (_, v, form) => {
      const key = sentAs.current
      notice({
        text: `${v.volume} mL poured.`,
        undo: () =>
          void takeBack(key).then((a) => {
            const last = (a as Schemas["FlushOut"] | null)?.passes.at(-1)
            if (last) undo("pour", last.id)
          }),
      })
      form.reset()
    },
  )
  const tenfold = entry.form.formState.errors.runoff_ec !== undefined
  return (
    <form onSubmit={(e) => void entry.submit(e)} noValidate>
      <PourFields form={entry.form} problem={entry.problem} pending={entry.pending} />
      <Box asChild mt="2">
        <details open={tenfold || undefined}>
          <summary style={{ cursor: "pointer", minHeight: 44 }}>
            Drained, colour, read twice
          </summary>
          <Flex gap="3" wrap="wrap" css={{ "& > *": { flex: "1 1 140px" } }}>
            <TextField form={entry.form} name="drained" label="Drained" unit="mL" numeric />
            <SelectField
              form={entry.form}
              name="colour"
              label="Colour"
              choices={[{ value: "", label: "not looked" }, "clear", "tinted", "brown"]}
            />
            <SelectField
              form={entry.form}
              name="read_twice"
              label="Read twice"
              choices={["no", "yes"]}
            />
          </Flex>
        </details>
      </Box>
      <PenReader
        into={{ pot_id: f.pot_id }}
        onValue={(v) => entry.form.setValue("runoff_ec", String(Math.round(v.corrected)))}
      />
      {f.passes.at(-1)?.runoff_uS_cm === null && <ReadLast f={f} />}
    </form>
  )
}

/** The reading of a pass that was poured before it was read. */
function ReadLast({ f }: { f: Schemas["FlushOut"] }) {
  const entry = useEntryForm<{ runoff_ec: string }, Schemas["FlushOut"]>(
    { runoff_ec: "" },
    (v, key) =>
      answer(
        client.POST("/api/flushes/{flush_id}/read", {
          params: { ...keyed(key), path: { flush_id: f.id } },
          body: { ...v, runoff_unit: "µS/cm", read_twice: false },
        }),
      ),
    () => undefined,
  )
  return (
    <Flex mt="4" gap="3" align="flex-end">
      <TextField
        form={entry.form}
        name="runoff_ec"
        label={`Runoff of pass ${f.passes.length}`}
        unit="µS/cm"
        numeric
      />
      <Button
        type="button"
        minH="44px"
        variant="outline"
        loading={entry.pending}
        onClick={() => void entry.submit()}
      >
        Save
      </Button>
    </Flex>
  )
}
