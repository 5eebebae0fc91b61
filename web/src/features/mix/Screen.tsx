import { Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { mixQuery } from "../../api/queries"
import { Loaded, Teach } from "../../ui/Page"
import { MadeCan } from "./MadeCan"
import { MixDesk } from "./MixDesk"

/** From a label to what is weighed into this can, then the pen, then the pots. */
export function Screen() {
  return <Loaded query={useQuery(mixQuery)}>{(page) => <Mix page={page} />}</Loaded>
}

function Mix({ page }: { page: Schemas["MixPage"] }) {
  const [made, setMade] = useState<{ batch: Schemas["BatchOut"]; potIds: number[] } | null>(null)
  const usable = page.waters.filter((w) => w.ec25_uS_cm !== null)
  if (usable.length === 0) {
    return (
      <Teach action={<Button asChild><Link to="/water">Enter a water’s reading</Link></Button>}>
        This station works out what to weigh into a can. It needs a water whose conductivity is known.
      </Teach>
    )
  }
  if (made) return <MadeCan made={made.batch} potIds={made.potIds} page={page} onBack={() => setMade(null)} />
  return (
    <>
      <MixDesk page={page} waters={usable} onMade={(batch, potIds) => setMade({ batch, potIds })} />
      {page.batches.length > 0 && <LastCans page={page} onOpen={(batch) => setMade({ batch, potIds: [] })} />}
    </>
  )
}

function LastCans({ page, onOpen }: { page: Schemas["MixPage"]; onOpen: (b: Schemas["BatchOut"]) => void }) {
  return (
    <details style={{ marginTop: "16px" }}>
      <summary style={{ cursor: "pointer", padding: "10px 0" }}>The last cans</summary>
      {page.batches.map((b) => (
        <Text key={b.id} py="1.5" borderTopWidth="1px">
          {b.made_on} · {b.name} · {b.volume_L} L · expected {Math.round(b.predicted_uS_cm)}{b.measured_uS_cm === null ? ", not measured" : `, read ${Math.round(b.measured_uS_cm)} µS/cm: ${b.verdict}`}{" "}
          <Button size="xs" variant="outline" onClick={() => onOpen(b)}>Pour from it</Button>
        </Text>
      ))}
    </details>
  )
}
