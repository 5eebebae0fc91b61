import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { takeBack } from "../../api/outbox"
import { figure } from "../../ui/format"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"
import { pour, skip } from "./entries"
import type { Mixed } from "./walk"
import { HeavyOnes } from "./HeavyOnes"
import { NextButton } from "./NextButton"

type Props = {
  can: Schemas["Can"]
  pots: Schemas["CanPot"][]
  mixed?: Mixed
  today: string
  by: string
  onNext: (poured: number[]) => void
  onOpen: () => void
  onBack?: () => void
}

/** A row of alike pots: feel along it, press out the heavy ones, pour the rest with one tap. */
export function RowStep({ can, pots, mixed, today, by, onNext, onOpen, onBack }: Props) {
  const [heavy, setHeavy] = useState<number[]>([])
  const notice = useNotice()
  const undo = useUndo()
  const first = pots[0]
  const dry = pots.filter((p) => !heavy.includes(p.pot_id))
  const names = (some: Schemas["CanPot"][]) => some.map((p) => p.code).join(", ")
  const all = usePress(
    async (_: null, key: string) => {
      if (heavy.length > 0)
        await skip(
          `${key}-heavy`,
          `${names(pots.filter((p) => heavy.includes(p.pot_id)))}: still heavy`,
          heavy,
          today,
        )
      if (dry.length === 0) return null
      await pour(key, `${names(dry)}: ${first?.amount_mL} mL each`, can, mixed, {
        pot_ids: dry.map((p) => p.pot_id),
        on: today,
        volume: first?.amount_mL ?? null,
        route: first?.route ?? null,
        felt: "as planned",
        by,
      })
      return key
    },
    (key) => {
      notice({
        text: [
          `${dry.length} ${dry.length === 1 ? "pot" : "pots"} saved`,
          heavy.length ? `, ${heavy.length} left for another day.` : ".",
        ].join(""),
        undo: key
          ? () =>
              void takeBack(key).then((a) =>
                (a as Schemas["Poured"] | null)?.pour_ids.forEach((id) => undo("pour", id)),
              )
          : undefined,
      })
      onNext(dry.map((p) => p.pot_id))
    },
  )
  if (!first) return null
  return (
    <Flex direction="column" flex="1" mt="2">
      <Heading as="h1" fontSize="2.1rem" lineHeight="1.15">
        {pots.length} alike
      </Heading>
      <Text color="fg.muted" fontSize="lg">
        {first.code} to {pots.at(-1)?.code} · {first.place}
      </Text>
      <Flex align="baseline" gap="2" mt="4">
        <Text fontSize="64px" lineHeight="1" fontWeight="bold">
          {figure(first.amount_mL)}
        </Text>
        <Text fontSize="2xl" fontWeight="semibold">
          mL each
        </Text>
        <Text ml="auto" color="fg.muted" fontSize="lg">
          {first.given}
        </Text>
      </Flex>
      <HeavyOnes pots={pots} heavy={heavy} setHeavy={setHeavy} />
      {all.isError && (
        <Text role="alert" color="state.stop" mt="3">
          {all.error.message}
        </Text>
      )}
      <Box mt="auto" pt="5">
        <NextButton pending={all.isPending} onClick={() => all.mutate(null)}>
          {heavy.length === 0
            ? "All as planned"
            : dry.length === 0
              ? "Leave them all"
              : `${dry.length} as planned, ${heavy.length} left`}
        </NextButton>
        <Flex gap="2" mt="2">
          {onBack && (
            <Button
              data-key="b"
              type="button"
              variant="ghost"
              flex="1"
              minH="48px"
              onClick={onBack}
            >
              Back one step
            </Button>
          )}
          <Button
            data-key="o"
            type="button"
            variant="outline"
            flex="1"
            minH="48px"
            onClick={onOpen}
          >
            One by one
          </Button>
        </Flex>
      </Box>
    </Flex>
  )
}
