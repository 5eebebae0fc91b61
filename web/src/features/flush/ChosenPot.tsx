import { Button, Flex } from "@chakra-ui/react"
import { useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { ComesOutForm } from "./ComesOutForm"
import { HistoryCard } from "./HistoryCard"
import { LearntCard } from "./LearntCard"
import { ReservoirCard } from "./ReservoirCard"
import { RhythmCard } from "./RhythmCard"
import { SchoolsCard } from "./SchoolsCard"
import { WaysCard } from "./WaysCard"

const PARTS = ["Ways", "Year ahead", "Schools", "Learnt", "History"] as const

/** One pot at the station: ways, year ahead, schools, what was learnt, history. */
export function ChosenPot({ pot, today }: { pot: Schemas["FlushRow"]; today: string }) {
  const [part, setPart] = useState<(typeof PARTS)[number]>("Ways")
  const [reading, setReading] = useState(false)
  const { row } = pot
  const it = { potId: row.id, ceiling: row.ceiling_uS_cm, today }
  return (
    <Flex direction="column" gap="3">
      <Flex gap="1" wrap="wrap" role="tablist" aria-label={`${row.code} at the Flush station`}>
        {PARTS.map((p) => (
          <Button
            key={p}
            size="sm"
            minH="44px"
            role="tab"
            aria-selected={p === part}
            variant={p === part ? "solid" : "outline"}
            onClick={() => setPart(p)}
          >
            {p}
          </Button>
        ))}
      </Flex>
      {part === "Ways" && (
        <>
          <WaysCard potId={row.id} code={row.code} target={row.ideal_high_uS_cm} today={today} />
          {!row.drains && <ReservoirCard potId={row.id} code={row.code} today={today} />}
        </>
      )}
      {part === "Year ahead" && <RhythmCard {...it} />}
      {part === "Schools" && <SchoolsCard {...it} />}
      {part === "Learnt" && <LearntCard potId={row.id} today={today} />}
      {part === "History" && <HistoryCard potId={row.id} today={today} />}
      {reading && (
        <ComesOutForm
          potId={row.id}
          code={row.code}
          today={today}
          drains={row.drains}
          onClose={() => setReading(false)}
        />
      )}
      <Flex gap="2" wrap="wrap">
        {!reading && (
          <Button minH="44px" variant="outline" onClick={() => setReading(true)}>
            Add a reading
          </Button>
        )}
        <Button asChild variant="outline" minH="44px">
          <Link to={`/pots/${row.id}`}>Open {row.code}</Link>
        </Button>
      </Flex>
    </Flex>
  )
}
