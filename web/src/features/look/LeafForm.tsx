import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { Choice } from "../../ui/Choice"
import { Entry } from "../../ui/Entry"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"

type Why = NonNullable<Schemas["LeafChange"]["lost_why"]>
const PRECISIONS = ["day", "week", "month"] as const
const WHY: [Why, string][] = [
  ["", "not said"],
  ["age", "age"],
  ["rot", "rot"],
  ["pest", "a pest"],
  ["cut", "cut on purpose"],
  ["accident", "an accident"],
]

/** A leaf put right: another length, or that it was lost, when and to what. */
export function LeafForm({
  leaf,
  today,
  onClose,
}: {
  leaf: Schemas["LeafRecord"]
  today: string
  onClose: () => void
}) {
  const [mm, setMm] = useState("")
  const [on, setOn] = useState(leaf.lost_on ?? today)
  const [precision, setPrecision] = useState<(typeof PRECISIONS)[number]>("day")
  const [why, setWhy] = useState<Why>(leaf.lost_why)
  const notice = useNotice()
  const undo = useUndo()
  const params = { path: { leaf_id: leaf.id } }
  const change = usePress(
    (body: Schemas["LeafChange"], key: string) =>
      answer(
        client.POST("/api/leaves/{leaf_id}/change", { params: { ...params, ...keyed(key) }, body }),
      ),
    () => {
      notice({ text: `Leaf ${leaf.number} changed.` })
      onClose()
    },
  )
  const measure = usePress(
    (growing: boolean, key: string) =>
      answer(
        client.POST("/api/leaves/{leaf_id}/lengths", {
          params: { ...params, ...keyed(key) },
          body: { on: today, mm, growing },
        }),
      ),
    (stored) => {
      notice({ text: "Length saved.", undo: () => undo("leaf length", stored.id) })
      onClose()
    },
  )
  const problem = change.error?.message ?? measure.error?.message
  return (
    <Box
      role="group"
      aria-label={`Leaf ${leaf.number}`}
      bg="bg.subtle"
      borderRadius="md"
      p="3"
      mt="2"
    >
      <Flex gap="2" wrap="wrap" align="flex-end" fontSize="sm">
        <Entry label="Length today" unit="mm" w="120px" numeric value={mm} onValue={setMm} />
        <Button minH="44px" variant="outline" onClick={() => measure.mutate(false)}>
          Save, finished
        </Button>
        <Button minH="44px" variant="outline" onClick={() => measure.mutate(true)}>
          Save, still growing
        </Button>
      </Flex>
      <Flex gap="2" wrap="wrap" align="flex-end" fontSize="sm" mt="2">
        <Entry label="Lost on" type="date" w="160px" value={on} onValue={setOn} />
        <Choice
          label="Known to the"
          value={precision}
          choices={PRECISIONS.map((p) => ({ value: p, label: `known to the ${p}` }))}
          onValue={(v) => setPrecision(v as "day")}
        />
        <Choice
          label="Lost to"
          value={why}
          choices={WHY.map(([value, label]) => ({ value, label: `lost to: ${label}` }))}
          onValue={(v) => setWhy(v as Why)}
        />
        <Button
          minH="44px"
          variant="outline"
          onClick={() => change.mutate({ lost_on: on, lost_precision: precision, lost_why: why })}
        >
          Save as lost
        </Button>
        {leaf.lost_on && (
          <Button minH="44px" variant="outline" onClick={() => change.mutate({ lost: false })}>
            It lives
          </Button>
        )}
        <Button minH="44px" variant="ghost" onClick={onClose}>
          Cancel
        </Button>
      </Flex>
      {problem && (
        <Text role="alert" color="state.stop" mt="1">
          {problem}
        </Text>
      )}
    </Box>
  )
}
