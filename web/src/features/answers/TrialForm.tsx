import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { useNavigate } from "react-router"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { Choice } from "../../ui/Choice"
import { Entry } from "../../ui/Entry"
import { Card } from "../../ui/Page"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"
import { PlanPreview } from "./PlanPreview"
import { PotsChosen } from "./PotsChosen"
import { TrialArms } from "./TrialArms"

type Body = Schemas["TrialIn"]
const KINDS: Body["kind"][] = [
  "water",
  "strength",
  "rhythm",
  "flush",
  "medium",
  "lamp",
  "place",
  "humidity",
  "treatment",
]
const MEASURES: NonNullable<Body["measure"]>[] = [
  "leaf length",
  "leaves gained",
  "root tips",
  "new burn",
  "height",
  "rating",
]
const plain = (values: readonly string[]) => values.map((v) => ({ value: v, label: v }))

/** A trial planned: the question, who takes part, and what the plan can show before anything begins. */
export function TrialForm({
  pots,
  kind,
  onClose,
}: {
  pots: Schemas["PotName"][]
  kind: string
  onClose: () => void
}) {
  const [body, setBody] = useState<Body>({
    question: "",
    kind: KINDS.find((k) => k === kind) ?? "water",
    pot_ids: [],
    measure: "leaf length",
    design: "pairs",
    seed: 1,
    water_id: null,
    feed: "as planned",
    share: null,
  })
  const set = (more: Partial<Body>) => setBody({ ...body, ...more })
  const go = useNavigate()
  const notice = useNotice()
  const undo = useUndo()
  const begin = usePress(
    (_: null, key: string) => answer(client.POST("/api/trials", { params: keyed(key), body })),
    (stored) => {
      notice({
        text: "The trial runs from today.",
        undo: () => {
          void go("/trials")
          undo("trial", stored.id)
        },
      })
      void go(`/trials/${stored.id}`)
    },
  )
  return (
    <Card title="Plan a trial" mb="4">
      <Flex gap="3" wrap="wrap" align="flex-end">
        <Entry
          label="Question"
          value={body.question}
          onValue={(question) => set({ question })}
          placeholder="Rain instead of tap: cleaner tips?"
        />
        <Choice
          label="What is changed"
          value={body.kind}
          onValue={(v) => set({ kind: v as Body["kind"] })}
          choices={plain(KINDS)}
        />
        <Choice
          label="What is measured"
          value={body.measure ?? ""}
          onValue={(v) => set({ measure: v as Body["measure"] })}
          choices={plain(MEASURES)}
        />
        <Choice
          label="Design"
          value={body.design ?? "pairs"}
          onValue={(v) => set({ design: v as Body["design"] })}
          choices={[
            { value: "pairs", label: "pairs alike" },
            { value: "groups", label: "two groups" },
            { value: "one plant", label: "one plant, in turns" },
          ]}
        />
      </Flex>
      <TrialArms body={body} onSet={set} />
      <PotsChosen pots={pots} chosen={body.pot_ids} onChosen={(pot_ids) => set({ pot_ids })} />
      <Box mt="3">
        <PlanPreview body={body} />
      </Box>
      {begin.error && (
        <Text role="alert" color="state.stop" mt="2">
          {begin.error.message}
        </Text>
      )}
      <Flex gap="3" mt="3">
        <Button minH="48px" loading={begin.isPending} onClick={() => begin.mutate(null)}>
          Save and begin
        </Button>
        <Button variant="outline" minH="48px" data-back onClick={onClose}>
          Cancel
        </Button>
      </Flex>
    </Card>
  )
}
