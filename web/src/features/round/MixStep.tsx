import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react"
import { useRef, useState } from "react"
import type { Schemas } from "../../api/client"
import type { Outcome } from "../../api/outbox"
import { CanDrawing } from "../../ui/CanDrawing"
import { TextField } from "../../ui/fields"
import { amount, expected } from "../../ui/format"
import { useEntryForm } from "../../ui/useEntryForm"
import { usePress } from "../../ui/usePress"
import { mix, penReading } from "./entries"
import type { Mixed } from "./walk"
import { NextButton } from "./NextButton"

type Props = {
  can: Schemas["Can"]
  today: string
  onMixed: (mixed: Mixed) => void
}

/** Mix the can, read the pen, be told whether it reads true. */
export function MixStep({ can, today, onMixed }: Props) {
  const [mixed, setMixed] = useState<Mixed | null>(null)
  const [judged, setJudged] = useState<{ good: boolean; sentence: string } | null>(null)
  const sentAs = useRef("")
  const made = usePress(
    (_: null, key: string) => {
      sentAs.current = key
      return mix(key, can, can.product_id ?? null, today)
    },
    (outcome) =>
      setMixed(
        outcome.state === "arrived"
          ? { id: (outcome.answer as Schemas["BatchOut"]).id }
          : { key: sentAs.current },
      ),
  )
  const read = (outcome: Outcome) => {
    if (outcome.state !== "arrived")
      return setJudged({
        good: true,
        sentence: [
          "Saved here, not judged yet: Fenwa does not answer.",
          `It should read ${expected(can.ec_low_uS_cm, can.ec_high_uS_cm)}.`,
        ].join(" "),
      })
    const { check } = outcome.answer as Schemas["Judged"]
    setJudged({ good: check.verdict === "fine", sentence: check.sentence })
  }
  return (
    <Flex direction="column" flex="1" mt="3" gap="4">
      <Heading as="h1" size="3xl">
        Can {can.letter}
      </Heading>
      <Flex gap="5" align="center">
        <CanDrawing ec={can.ec_uS_cm} share={can.volume_L / 4} letter={can.letter} size={72} />
        <Box fontSize="lg">
          <Text>
            {amount(can.volume_L, "L")} {can.water_name}
          </Text>
          <Text fontWeight="semibold">{can.product}</Text>
          <Text fontWeight="semibold">{can.weighing}</Text>
          <Text color="fg.muted">Expect {expected(can.ec_low_uS_cm, can.ec_high_uS_cm)}.</Text>
        </Box>
      </Flex>
      {made.isError && (
        <Text role="alert" color="state.stop">
          {made.error.message}
        </Text>
      )}
      {judged && (
        <Text role="status" fontSize="lg" color={judged.good ? "state.good" : "state.stop"}>
          {judged.sentence}
        </Text>
      )}
      <Box mt="auto">
        {!mixed ? (
          <NextButton pending={made.isPending} onClick={() => made.mutate(null)}>
            Mixed it
          </NextButton>
        ) : judged ? (
          <NextButton onClick={() => onMixed(mixed)}>
            {judged.good ? "Pour" : "Go on all the same"}
          </NextButton>
        ) : (
          <ReadPen
            can={can}
            mixed={mixed}
            today={today}
            onRead={read}
            onSkip={() => onMixed(mixed)}
          />
        )}
      </Box>
    </Flex>
  )
}

function ReadPen({
  can,
  mixed,
  today,
  onRead,
  onSkip,
}: {
  can: Schemas["Can"]
  mixed: Mixed
  today: string
  onRead: (o: Outcome) => void
  onSkip: () => void
}) {
  const entry = useEntryForm<{ value: string }, Outcome>(
    { value: "" },
    (v, key) => penReading(key, can, mixed, v.value, today),
    onRead,
  )
  return (
    <form onSubmit={(e) => void entry.submit(e)} noValidate>
      <TextField form={entry.form} name="value" label="The pen reads" unit="µS/cm" numeric />
      {entry.problem && (
        <Text role="alert" color="state.stop">
          {entry.problem}
        </Text>
      )}
      <Flex gap="3" mt="3">
        <Button data-key="s" type="button" variant="outline" flex="1" minH="64px" onClick={onSkip}>
          No pen today
        </Button>
        <Button type="submit" flex="2" minH="64px" fontSize="lg" loading={entry.pending}>
          Check it
        </Button>
      </Flex>
    </form>
  )
}
