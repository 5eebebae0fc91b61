import { Box } from "@chakra-ui/react"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { PotsLine, type Said } from "./PotsLine"

const body = (said: Said): Schemas["PotIn"] => {
  const r = said.said.result
  return {
    code: said.code,
    alike: r.count,
    profile_id: r.kind,
    medium_id: r.medium,
    volume: r.volume_L,
    top_cm: r.top_cm,
    height_cm: r.height_cm,
    drainage: r.drainage,
    route: r.drainage === "tray" ? "tray" : "top",
    interval_days: r.interval_days,
  } as Schemas["PotIn"]
}

/** Pots in one line, saved as they were understood. */
export function SayPots({ onDone }: { onDone: () => void }) {
  const notice = useNotice()
  const add = usePress(
    (s: Said, key) => answer(client.POST("/api/pots", { params: keyed(key), body: body(s) })),
    (_, s) => {
      const n = s.said.result.count
      notice({ text: n === 1 ? `${s.code} is saved.` : `${n} pots are saved, from ${s.code} on.` })
      onDone()
    },
  )
  return (
    <Box
      as="section"
      aria-label="Add pots"
      bg="bg.panel"
      borderWidth="1px"
      borderRadius="lg"
      p="4"
      mb="4"
    >
      <PotsLine
        label="In one line, as you would say it"
        pending={add.isPending}
        problem={add.error?.message}
        onAdd={(said) => add.mutate(said)}
      />
    </Box>
  )
}
