import { Box, Button, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { useQuantities } from "../../../api/waterQueries"
import { day } from "../../../ui/format"
import { useNotice } from "../../../ui/noticeContext"
import { useUndo } from "../../../ui/useUndo"
import { Review } from "./Review"

export function Report({ report: r, today }: { report: Schemas["ReportOut"]; today: string }) {
  const undo = useUndo()
  const notice = useNotice()
  const known = useQuantities()
  const v = r.review
  const path = { params: { path: { report_id: r.id } } }
  const whole = {
    kind: "fetch" as const,
    key: `report-${r.id}`,
    load: async () => (await answer(client.GET("/api/reports/{report_id}/working", path))).working,
  }
  const balance = {
    kind: "fetch" as const,
    key: `balance-${r.id}`,
    load: async () => (await answer(client.GET("/api/reports/{report_id}/balance", path))).working,
  }
  return (
    <Box borderWidth="1px" borderRadius="md" p="3">
      <Text fontWeight="semibold">
        {r.water}, {day(r.on, today)}
      </Text>
      <Text fontSize="sm" color="fg.muted">
        {r.laboratory}
      </Text>
      {v && (
        <>
          {v.sentences.map((s) => (
            <Text key={s} mt="1">
              {s}
            </Text>
          ))}
          {v.balance.causes.map((c) => (
            <Text key={c} mt="1" color="state.warn">
              Possible cause: {c}.
            </Text>
          ))}
          <Review v={v} whole={whole} balance={balance} />
        </>
      )}
      <Box as="details" mt="2">
        <Box as="summary" cursor="pointer" py="1" fontSize="sm">
          Its {r.lines.length} lines
        </Box>
        <Text fontSize="sm">
          {r.lines
            .map((l) =>
              `${known.find((k) => k.id === l.quantity)?.label ?? l.quantity} ${l.typed} ${l.unit}`.trim(),
            )
            .join(" · ")}
        </Text>
      </Box>
      <Button
        size="sm"
        variant="outline"
        mt="2"
        aria-label={`Delete the report on ${r.water}`}
        onClick={() => {
          undo("report", r.id)
          notice({ text: "Report deleted.", undo: () => undo("report", r.id, true) })
        }}
      >
        Delete
      </Button>
    </Box>
  )
}
