import { Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { useOptions } from "../../api/queries"
import { Choice } from "../../ui/Choice"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { type LogKind, useUndo } from "../../ui/useUndo"

/** A sum is saved where such things are entered, for the water, can or pot that is chosen; nothing to choose: no
 * button. */
export function SaveTo<A>({
  label,
  of,
  choices,
  undone,
  send,
  done,
}: {
  label: string
  of: string
  choices: { value: string; label: string }[]
  undone?: (stored: A) => [LogKind, number | null]
  send: (id: number, key: string) => Promise<A>
  done: (stored: A) => string
}) {
  const notice = useNotice()
  const undo = useUndo()
  const [chosen, setChosen] = useState("")
  const id = chosen || (choices[0]?.value ?? "")
  const save = usePress(send, (stored) => {
    const [kind, row] = undone?.(stored) ?? ["reading", null]
    notice({ text: done(stored), undo: row === null ? undefined : () => undo(kind, row) })
  })
  const today = useOptions()?.today // what is saved is dated
  if (choices.length === 0 || !today) return null
  return (
    <>
      <Flex gap="2" mt="3" wrap="wrap" align="center">
        <Button
          variant="outline"
          minH="44px"
          loading={save.isPending}
          onClick={() => save.mutate(Number(id))}
        >
          {label}
        </Button>
        <Choice label={of} value={id} onValue={setChosen} choices={choices} />
      </Flex>
      {save.isError && (
        <Text role="alert" color="state.stop" mt="1">
          {save.error.message}
        </Text>
      )}
    </>
  )
}
