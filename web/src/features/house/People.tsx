import { Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { answer, client, keyed } from "../../api/client"
import { peopleQuery } from "../../api/queries"
import { TextField } from "../../ui/fields"
import { Card } from "../../ui/Page"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"

/** The short list of those who pour; a name, no account. */
export function People() {
  const people = useQuery(peopleQuery).data ?? []
  const undo = useUndo()
  const notice = useNotice()
  const entry = useEntryForm(
    { name: "" },
    (v, key) => answer(client.POST("/api/people", { params: keyed(key), body: v })),
    (_, __, form) => form.reset(),
  )
  const out = (p: { id: number; name: string }) => {
    undo("person", p.id)
    notice({
      text: `${p.name} is off the list; what was poured keeps the name.`,
      undo: () => undo("person", p.id, true),
    })
  }
  return (
    <Card title="Who pours">
      <Text color="fg.muted">
        A name beside each pour, chosen on the walk. No accounts; leave the list empty and nobody is
        asked.
      </Text>
      {people.map((p) => (
        <Flex
          key={p.id}
          justify="space-between"
          align="center"
          borderTopWidth="1px"
          py="1.5"
          mt="2"
        >
          <Text>{p.name}</Text>
          <Button
            size="sm"
            minH="40px"
            variant="outline"
            aria-label={`Delete ${p.name}`}
            onClick={() => out(p)}
          >
            Delete
          </Button>
        </Flex>
      ))}
      <form onSubmit={(e) => void entry.submit(e)} noValidate>
        <Flex gap="3" mt="3" align="flex-end" wrap="wrap">
          <TextField form={entry.form} name="name" label="Name" />
          <Button type="submit" minH="44px" variant="outline" loading={entry.pending}>
            Add the name
          </Button>
        </Flex>
        {entry.problem && (
          <Text role="alert" color="state.stop">
            {entry.problem}
          </Text>
        )}
      </form>
    </Card>
  )
}
