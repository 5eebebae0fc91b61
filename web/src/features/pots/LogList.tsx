import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useInfiniteQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { windowed } from "../../api/windowed"
import { MoreRows } from "../../ui/MoreRows"
import { NoteField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { amount, day, pourVolume, numberIn } from "../../ui/format"
import { Card } from "../../ui/Page"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"

const SHOWN = 6
const earlierPours = (pot_id: number, from: number) =>
  windowed({
    key: ["pots", "earlier", pot_id, from],
    from,
    rows: (page: Schemas["PoursPage"]) => page.pours.length,
    ask: (skip) =>
      answer(
        client.GET("/api/pots/{pot_id}/pours", { params: { path: { pot_id }, query: { skip } } }),
      ),
  })

/** The last pours: correct one, or take it back. */
export function LogList({ page }: { page: Schemas["PotPage"] }) {
  const [editing, setEditing] = useState<number | null>(null)
  const undo = useUndo()
  const notice = useNotice()
  const [pressed, setPressed] = useState(false)
  const last = page.pours.toReversed().slice(0, SHOWN)
  const more = useInfiniteQuery({ ...earlierPours(page.row.id, SHOWN), enabled: pressed })
  const rows = [...last, ...(more.data?.pages.flatMap((p) => p.pours) ?? [])]
  const left = page.pours_total - rows.length
  return (
    <Card title="Last pours">
      {rows.length === 0 && <Text color="fg.muted">Nothing poured yet.</Text>}
      {rows.map((p) => (
        <Box key={p.id} borderTopWidth="1px" py="1.5">
          <Flex justify="space-between" gap="2" wrap="wrap" align="center">
            <Text fontSize="sm">
              {day(p.on, page.today)} · {p.job} ·{" "}
              {p.volume_L === null ? "volume not measured" : pourVolume(p.volume_L * 1000)} at{" "}
              {p.ec_uS_cm === null
                ? "EC not known"
                : `${p.ec_estimated ? "not measured, about " : ""}${amount(p.ec_uS_cm, "µS/cm")}`}
              {p.runoff_ec_uS_cm !== null && ` · runoff ${numberIn(p.runoff_ec_uS_cm, "µS/cm")}`}
              {p.felt === "dry" && " · felt dry"}
              {p.by && ` · ${p.by}`}
              {p.corrected && " · corrected"}
            </Text>
            <Flex gap="1">
              <Button
                size="xs"
                variant="outline"
                aria-label={`Correct the pour of ${day(p.on)}`}
                onClick={() => setEditing(p.id)}
              >
                Correct
              </Button>
              <Button
                size="xs"
                variant="outline"
                aria-label={`Delete the pour of ${day(p.on)}`}
                onClick={() => {
                  undo("pour", p.id)
                  notice({ text: "Pour deleted.", undo: () => undo("pour", p.id, true) })
                }}
              >
                Delete
              </Button>
            </Flex>
          </Flex>
          {editing === p.id && <Correct pour={p} onClose={() => setEditing(null)} />}
        </Box>
      ))}
      <MoreRows
        left={left}
        query={{
          hasNextPage: left > 0,
          isFetchingNextPage: more.isFetching,
          fetchNextPage: () => (pressed ? more.fetchNextPage() : setPressed(true)),
        }}
      />
    </Card>
  )
}

function Correct({ pour, onClose }: { pour: Schemas["PourOut"]; onClose: () => void }) {
  const entry = useEntryForm(
    {
      volume_L: String(pour.volume_L ?? ""),
      ec_uS_cm: pour.ec_uS_cm === null ? "" : String(Math.round(pour.ec_uS_cm)),
      note: pour.note,
    },
    (v, key) =>
      answer(
        client.POST("/api/log/pour/{row_id}/correct", {
          params: { ...keyed(key), path: { row_id: pour.id } },
          body: v,
        }),
      ),
    onClose,
  )
  return (
    <EntrySheet
      entry={entry}
      title="Correct the pour"
      submit="Save the correction"
      onCancel={onClose}
    >
      <TextField form={entry.form} name="volume_L" label="Volume" unit="L" numeric />
      <TextField form={entry.form} name="ec_uS_cm" label="EC" unit="µS/cm" numeric />
      <NoteField
        form={entry.form}
        name="note"
        label="Note"
        hint="What stood here before stays in the record."
      />
    </EntrySheet>
  )
}
