import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { CanDrawing } from "../../ui/CanDrawing"
import { TextField } from "../../ui/fields"
import { useEntryForm, usePress } from "../../ui/useEntryForm"

type Props = { can: Schemas["Can"]; productId: number | null; product: string; today: string; onMixed: (batchId: number) => void }

/** Mix the can, read the pen, be told whether it reads true. */
export function MixStep({ can, productId, product, today, onMixed }: Props) {
  const [batch, setBatch] = useState<Schemas["BatchOut"] | null>(null)
  const [judged, setJudged] = useState<Schemas["Judged"] | null>(null)
  const made = usePress(
    (_: null, key: string) =>
      answer(client.POST("/api/batches", { params: keyed(key), body: { made_on: today, name: "", product_id: productId, water_id: can.water_id, pot_ids: can.pots.map((p) => p.pot_id), volume: can.volume_L, volume_unit: "L", strength: can.strength ?? "nitrogen", value: can.strength_value, element: "N", blend: [], also: [], route: "root", recipe: "" } })),
    setBatch,
  )
  return (
    <Flex direction="column" flex="1" mt="3" gap="4">
      <Heading as="h1" size="3xl">Can {can.letter}</Heading>
      <Flex gap="5" align="center">
        <CanDrawing ec={can.ec_uS_cm} share={can.volume_L / 4} letter={can.letter} size={72} />
        <Box fontSize="lg">
          <Text>{can.volume_L} L {can.water_name}</Text>
          <Text fontWeight="semibold">{product}</Text>
          <Text fontWeight="semibold">{can.weighing}</Text>
          <Text color="fg.muted">Expect {Math.round(can.ec_low_uS_cm)} to {Math.round(can.ec_high_uS_cm)} µS/cm.</Text>
        </Box>
      </Flex>
      {made.isError && <Text role="alert" color="state.stop">{made.error.message}</Text>}
      {judged && <Text role="status" fontSize="lg" color={judged.check.verdict === "fine" ? "state.good" : "state.stop"}>{judged.check.sentence}</Text>}
      <Box mt="auto">
        {!batch ? (
          <Button w="100%" minH="72px" fontSize="xl" loading={made.isPending} onClick={() => made.mutate(null)}>Mixed it</Button>
        ) : judged ? (
          <Button w="100%" minH="72px" fontSize="xl" onClick={() => onMixed(batch.id)}>{judged.check.verdict === "fine" ? "Pour" : "Go on all the same"}</Button>
        ) : (
          <ReadPen batch={batch} today={today} onJudged={setJudged} onSkip={() => onMixed(batch.id)} />
        )}
      </Box>
    </Flex>
  )
}

function ReadPen({ batch, today, onJudged, onSkip }: { batch: Schemas["BatchOut"]; today: string; onJudged: (j: Schemas["Judged"]) => void; onSkip: () => void }) {
  const entry = useEntryForm({ value: "" }, (v, key) => answer(client.POST("/api/batches/{batch_id}/reading", { params: { ...keyed(key), path: { batch_id: batch.id } }, body: { on: today, value: v.value, unit: "µS/cm", compensated: true, temperature_unit: "°C", note: "" } })), onJudged)
  return (
    <form onSubmit={(e) => void entry.submit(e)} noValidate>
      <TextField form={entry.form} name="value" label="The pen reads" unit="µS/cm" numeric />
      {entry.problem && <Text role="alert" color="state.stop">{entry.problem}</Text>}
      <Flex gap="3" mt="3">
        <Button type="button" variant="outline" flex="1" minH="64px" onClick={onSkip}>No pen today</Button>
        <Button type="submit" flex="2" minH="64px" fontSize="lg" loading={entry.pending}>Check it</Button>
      </Flex>
    </form>
  )
}
