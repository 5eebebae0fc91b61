import { Box, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useEffect, useSyncExternalStore } from "react"
import { Link, useNavigate, useParams } from "react-router"
import type { Schemas } from "../../api/client"
import { answerTo, loadWalk, type Outcome, post, subscribe, waiting } from "../../api/outbox"
import { figure } from "../../ui/format"
import { useEntryForm } from "../../ui/useEntryForm"
import type { Begun } from "./begun"
import { type Poured, PourFields } from "./PourFields"
import { PASSES_OF_BEGUN } from "./queries"
import { SoakTimer } from "./SoakTimer"

/** A flush begun while Fenwa is out of reach: its passes wait in the phone, by the plan as it was last seen. */
export function WaitingSession() {
  const key = useParams().key ?? ""
  const go = useNavigate()
  const entries = useSyncExternalStore(subscribe, waiting)
  const begun = useQuery({
    queryKey: ["flush", "begun", key],
    queryFn: async () => (await loadWalk<Begun>(`flush-begun-${key}`)) ?? null,
  }).data
  const start = entries.find((e) => e.key === key)
  const passes = entries.filter((e) => e.from === key)
  useEffect(() => {
    void answerTo(key).then((found) => {
      if (found) void go(`/flush/${(found as Schemas["FlushOut"]).id}`, { replace: true })
    })
  }, [key, entries, go])
  if (!begun) return null
  const last = passes.at(-1)?.body["at"] as string | undefined
  return (
    <Box maxW="520px" mx="auto">
      <Flex justify="space-between" gap="3">
        <Text color="fg.muted">Flush, pass {passes.length + 1}</Text>
        <Link to="/flush">Leave; it goes on</Link>
      </Flex>
      <Text as="h1" fontSize="1.6rem" fontWeight="semibold">
        {begun.code}
      </Text>
      <Text mt="2" fontWeight="semibold" role="status">
        {start?.problem ??
          "Fenwa is out of reach. The flush and its passes wait in this phone; the curve comes once it answers."}
      </Text>
      <Text color="fg.muted" mt="1">
        As last planned: {begun.rounds} × {figure(begun.round_L * 1000, 3)} mL of {begun.water},{" "}
        {Math.round(begun.pause_min)} min apart.
      </Text>
      <Box asChild mt="3" ps="5">
        <ol aria-label="Passes">
          {passes.map((p) => (
            <li key={p.key}>
              {String(p.body["volume"])} mL
              {p.body["runoff_ec"] ? `, runoff ${String(p.body["runoff_ec"])} µS/cm` : ", not read"}
              {p.problem ? `. ${p.problem}` : ""}
            </li>
          ))}
        </ol>
      </Box>
      {last && <SoakTimer since={last} minutes={begun.pause_min} />}
      {start && <WaitingPass key={passes.length} begun={begun} from={key} />}
    </Box>
  )
}

function WaitingPass({ begun, from }: { begun: Begun; from: string }) {
  const entry = useEntryForm<Poured, Outcome>(
    { volume: String(Math.round(begun.round_L * 1000)), runoff_ec: "" },
    async (v, key) => {
      const outcome = await post({
        key,
        from,
        path: PASSES_OF_BEGUN,
        title: `${begun.code}: pass of ${v.volume} mL`,
        body: { ...v, drained: "", colour: "", read_twice: false, at: new Date().toISOString() },
      })
      if (outcome.state === "refused") throw outcome.problem
      return outcome
    },
    () => undefined,
  )
  return (
    <form onSubmit={(e) => void entry.submit(e)} noValidate>
      <PourFields form={entry.form} problem={entry.problem} pending={entry.pending} />
    </form>
  )
}
