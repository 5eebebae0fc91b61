import { Box, Button, Flex } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { ComesOutForm } from "./ComesOutForm"
import { HistoryCard } from "./HistoryCard"
import { LearntCard } from "./LearntCard"
import { ReservoirCard } from "./ReservoirCard"
import { WaysCard } from "./WaysCard"

/** What comes out, and the flush, on the pot's own page. */
export function FlushHere({ row, today }: { row: Schemas["PotRow"]; today: string }) {
  const [open, setOpen] = useState<"reading" | "learnt" | null>(null)
  return (
    <Flex direction="column" gap="4">
      <WaysCard potId={row.id} code={row.code} target={row.ideal_high_uS_cm} today={today} />
      {!row.drains && <ReservoirCard potId={row.id} code={row.code} today={today} />}
      {open === "reading" && (
        <ComesOutForm
          potId={row.id}
          code={row.code}
          today={today}
          drains={row.drains}
          onClose={() => setOpen(null)}
        />
      )}
      {open === "learnt" && (
        <>
          <LearntCard potId={row.id} today={today} />
          <HistoryCard potId={row.id} today={today} />
        </>
      )}
      <Box>
        <Button minH="44px" variant="outline" mr="2" onClick={() => setOpen("reading")}>
          Add a reading
        </Button>
        <Button
          minH="44px"
          variant="outline"
          aria-expanded={open === "learnt"}
          onClick={() => setOpen(open === "learnt" ? null : "learnt")}
        >
          What its readings taught
        </Button>
      </Box>
    </Flex>
  )
}
