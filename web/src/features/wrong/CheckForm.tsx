import { Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { answer, client, keyed } from "../../api/client"
import { Entry } from "../../ui/Entry"
import { Card } from "../../ui/Page"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"
import { checksQuery, type Wrong } from "./queries"

/** A check with its instruction; how it came out enters by one press and moves the order. */
export function CheckForm({
  page,
  check,
  onClose,
}: {
  page: Wrong
  check: string
  onClose: () => void
}) {
  const row = (useQuery(checksQuery).data ?? []).find((c) => c.id === check)
  const step = page.stairs.result.steps.find((s) => s.id === check)
  const [on, setOn] = useState(page.today)
  const notice = useNotice()
  const undo = useUndo()
  const save = usePress(
    (finding: string, key: string) =>
      answer(
        client.POST("/api/checks", {
          params: keyed(key),
          body: { pot_id: page.pot_id, check, on, finding, note: "" },
        }),
      ),
    (stored) => {
      notice({ text: "Check saved.", undo: () => undo("ill check", stored.id) })
      onClose()
    },
  )
  if (!row || !step) return null
  return (
    <Card title={row.name} mb="4">
      <Text>{row.how}</Text>
      <Text color="fg.muted" fontSize="sm">
        {step.minutes < 600 ? `${step.minutes} minutes` : "A week"}; {step.costs_plant}. Decides:{" "}
        {step.decides}.{step.why_not && ` ${step.why_not}`}
      </Text>
      <Flex gap="3" wrap="wrap" align="flex-end" mt="2">
        <Entry label="Done on" type="date" w="170px" value={on} onValue={setOn} />
        {row.outcomes.map((o) => (
          <Button
            key={o.finding}
            variant="outline"
            minH="48px"
            loading={save.isPending}
            onClick={() => save.mutate(o.finding)}
          >
            {o.words}
          </Button>
        ))}
        <Button
          variant="outline"
          minH="48px"
          loading={save.isPending}
          onClick={() => save.mutate("")}
        >
          Cannot tell
        </Button>
        <Button variant="ghost" minH="48px" data-back onClick={onClose}>
          Cancel
        </Button>
      </Flex>
      {save.error && (
        <Text role="alert" color="state.stop" mt="2">
          {save.error.message}
        </Text>
      )}
    </Card>
  )
}
