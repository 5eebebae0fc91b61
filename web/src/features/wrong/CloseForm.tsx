import { Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { answer, client, keyed } from "../../api/client"
import { Choice } from "../../ui/Choice"
import { Entry } from "../../ui/Entry"
import { Card } from "../../ui/Page"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { causesQuery, type Wrong } from "./queries"

/** Closing a case with what it was: a known cause moves what is likely here. */
export function CloseForm({
  page,
  caseId,
  onClose,
}: {
  page: Wrong
  caseId: number
  onClose: () => void
}) {
  const causes = useQuery(causesQuery).data?.causes ?? []
  const [cause, setCause] = useState(page.shown[0]?.id ?? "")
  const [note, setNote] = useState("")
  const notice = useNotice()
  const close = usePress(
    (_: null, key: string) =>
      answer(
        client.POST("/api/cases/{case_id}/close", {
          params: { ...keyed(key), path: { case_id: caseId } },
          body: { cause, note },
        }),
      ),
    () => {
      notice({ text: "The case is closed." })
      onClose()
    },
  )
  return (
    <Card title="What was it?" mb="4">
      <Flex gap="3" wrap="wrap" align="flex-end">
        <Choice
          label="Cause"
          value={cause}
          onValue={setCause}
          choices={[
            { value: "", label: "nobody found out" },
            ...causes.map((c) => ({ value: c.id, label: c.name })),
          ]}
        />
        <Entry label="Note" value={note} onValue={setNote} />
        <Button minH="48px" loading={close.isPending} onClick={() => close.mutate(null)}>
          Close the case
        </Button>
        <Button variant="outline" minH="48px" data-back onClick={onClose}>
          Cancel
        </Button>
      </Flex>
      {close.error && (
        <Text role="alert" color="state.stop" mt="2">
          {close.error.message}
        </Text>
      )}
    </Card>
  )
}
