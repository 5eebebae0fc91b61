import { Box, Button, Text } from "@chakra-ui/react"
import { useState } from "react"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { useUndo } from "../../../ui/useUndo"

type Hold = Schemas["PotRow"]["holds"][number]

/** What must not be done, why, and until when; any of it may be set aside with a word. */
export function Holds({ potId, holds }: { potId: number; holds: Hold[] }) {
  const [open, setOpen] = useState<string | null>(null)
  return (
    <Box mb="3">
      {holds.map((h) => (
        <Box key={h.id} mb="2">
          <Text>
            <b>
              {h.word ? "Set aside: " : h.standing ? "" : "Hold: "}
              {h.reason}
            </b>{" "}
            <Text as="span" color="fg.muted">
              {h.word
                ? `Your word: ${h.word}`
                : `Blocks ${h.blocks.join(", ")}. ${h.standing ? "" : "Ends: "}${h.release}`}
            </Text>
            {!h.word && !h.standing && (
              <Button
                size="sm"
                variant="ghost"
                ml="1"
                aria-label={`Set aside the hold ${h.id}`}
                onClick={() => setOpen(h.id)}
              >
                Set aside
              </Button>
            )}
          </Text>
          {open === h.id && <SetAside potId={potId} hold={h} onClose={() => setOpen(null)} />}
        </Box>
      ))}
    </Box>
  )
}

function SetAside({ potId, hold, onClose }: { potId: number; hold: Hold; onClose: () => void }) {
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<{ word: string }, Schemas["Stored"]>(
    { word: "" },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/override", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { hold_id: hold.id, word: v.word },
        }),
      ),
    (kept) => {
      notice({
        text: `The hold “${hold.id}” is overridden; your reason is saved.`,
        undo: () => undo("override", kept.id),
      })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title={`Set aside: ${hold.id}`} submit="Save" onCancel={onClose}>
      <TextField
        form={entry.form}
        name="word"
        label="Why, in a word"
        hint="It is saved with the pot, for sixty days at most."
      />
    </EntrySheet>
  )
}
