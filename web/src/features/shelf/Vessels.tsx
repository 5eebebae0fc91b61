import { Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { SelectField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { amount, amountOf } from "../../ui/format"
import { useNotice } from "../../ui/noticeContext"
import { Card } from "../../ui/Page"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"

/** Cans and mist bottles by size, and the measures that were weighed. */
export function Vessels({ page }: { page: Schemas["ShelfPage"] }) {
  const [adding, setAdding] = useState(false)
  return (
    <Card title="Cans, bottles, spoons" mb="4">
      {page.vessels.map((v) => (
        <Flex key={v.id} justify="space-between" py="1.5" borderTopWidth="1px">
          <Text>{v.name}</Text>
          <Text>{amount(v.volume_L, "L")}</Text>
        </Flex>
      ))}
      {page.measures.map((m) => (
        <Flex key={m.id} justify="space-between" py="1.5" borderTopWidth="1px" gap="3">
          <Text>
            {m.name}, {m.product}
          </Text>
          <Text whiteSpace="nowrap">{amountOf(m.each, m.unit)}</Text>
        </Flex>
      ))}
      {page.vessels.length + page.measures.length === 0 && (
        <Text color="fg.muted">
          Sizes of your cans and mist bottles stand here; spoons are weighed at Mix.
        </Text>
      )}
      {adding ? (
        <VesselForm onClose={() => setAdding(false)} />
      ) : (
        <Button mt="2" size="sm" variant="outline" minH="44px" onClick={() => setAdding(true)}>
          Add a can or bottle
        </Button>
      )}
    </Card>
  )
}

function VesselForm({ onClose }: { onClose: () => void }) {
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<{ name: string; kind: string; volume_L: string }, Schemas["Stored"]>(
    { name: "", kind: "can", volume_L: "" },
    (v, key) => answer(client.POST("/api/vessels", { params: keyed(key), body: v })),
    (stored, v) => {
      notice({ text: `${v.name} is saved.`, undo: () => undo("vessel", stored.id) })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title="A can or bottle" submit="Save" onCancel={onClose}>
      <TextField form={entry.form} name="name" label="Name of it" />
      <SelectField
        form={entry.form}
        name="kind"
        label="It is a"
        choices={["can", "mist bottle", "stock bottle"]}
      />
      <TextField form={entry.form} name="volume_L" label="Holds" unit="L" numeric />
    </EntrySheet>
  )
}
