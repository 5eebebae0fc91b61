import { unitName } from "../../ui/format"
import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { answer, client, type Schemas } from "../../api/client"
import { SelectField, TextField } from "../../ui/fields"
import { useLiveForm } from "../../ui/useLiveForm"

export type Said = Schemas["SaidOut"]
type Values = { line: string; kind: string }

/** A line of pots, as one says it: what was understood stands below it before anything is added. */
export function PotsLine({
  label,
  pending,
  problem,
  onAdd,
}: {
  label: string
  pending?: boolean
  problem?: string
  onAdd: (said: Said, line: string, clear: () => void) => void
}) {
  const live = useLiveForm<Values, Said>(
    "say-pots",
    { line: "", kind: "" },
    (v) => answer(client.POST("/api/pots/said", { body: v })),
    (v) => v.line.trim().length > 2,
  )
  const { form, answer: said, values } = live
  const r = said?.said.result
  const clear = () => {
    form.reset()
    form.setFocus("line")
  }
  return (
    <>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault()
          if (said) onAdd(said, values.line, clear)
        }}
      >
        <Flex gap="3" wrap="wrap" align="flex-end">
          <Box flex="1 1 220px" maxW="520px">
            <TextField
              form={form}
              name="line"
              label={label}
              placeholder={
                unitName("cm") === "in"
                  ? "6 Phalaenopsis in bark, 5 inch"
                  : "6 Phalaenopsis in bark, 12 cm"
              }
            />
          </Box>
          {said && said.choices.length > 0 && (
            <Box>
              <SelectField
                form={form}
                name="kind"
                label="Which of them"
                choices={[
                  { value: "", label: "not sure: the strictest" },
                  ...said.choices.map((c) => ({ value: c.id, label: c.name })),
                ]}
              />
            </Box>
          )}
          {r && (
            <Button type="submit" minH="44px" loading={pending}>
              {r.count === 1 ? "Add the pot" : `Add ${r.count} pots`}
            </Button>
          )}
        </Flex>
      </form>
      <Text mt="2" aria-live="polite" color={r ? undefined : "fg.muted"}>
        {r ? r.sentence : "A count, a kind, what it stands in, how wide: a kind is enough."}
      </Text>
      {(live.problem ?? problem) && (
        <Text role="alert" color="state.stop" mt="1">
          {live.problem ?? problem}
        </Text>
      )}
    </>
  )
}
