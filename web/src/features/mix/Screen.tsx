import { Button } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { lazy, useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { mixQuery } from "../../api/queries"
import { Loaded, Teach } from "../../ui/Page"
import { ToolShelf } from "../../ui/ToolShelf"
import { type Draft, firstDraft, type Page } from "./draft"
import { LastCans } from "./LastCans"
import { MadeCan } from "./MadeCan"
import { MixDesk } from "./MixDesk"
import { TOOLS } from "./tools/toolList"

const Panel = lazy(() => import("./tools/Panels"))

/** From a label to what is weighed into this can, then the pen, then the pots. */
export function Screen() {
  return <Loaded query={useQuery(mixQuery)}>{(page) => <Mix page={page} />}</Loaded>
}

function Mix({ page }: { page: Page }) {
  const usable = page.waters
  const [made, setMade] = useState<{ batch: Schemas["BatchOut"]; potIds: number[] } | null>(null)
  const [draft, setDraft] = useState<Draft>(() => firstDraft(page, usable))
  if (usable.length === 0) {
    return (
      <Teach
        action={
          <Button asChild>
            <Link to="/water">Add a water</Link>
          </Button>
        }
      >
        This station works out what to weigh into a can. It needs a water to mix with; a reading is
        not needed.
      </Teach>
    )
  }
  if (made)
    return (
      <MadeCan made={made.batch} potIds={made.potIds} page={page} onBack={() => setMade(null)} />
    )
  const now = usable.some((w) => w.id === draft.water_id)
    ? draft
    : { ...draft, water_id: usable[0]?.id ?? 0 }
  return (
    <>
      <MixDesk
        page={page}
        waters={usable}
        draft={now}
        onDraft={setDraft}
        onMade={(batch, potIds) => setMade({ batch, potIds })}
      />
      <ToolShelf label="Mix tools" tools={TOOLS}>
        {(id) => <Panel id={id} page={page} waters={usable} draft={now} onDraft={setDraft} />}
      </ToolShelf>
      {page.batches.length > 0 && (
        <LastCans page={page} onOpen={(batch) => setMade({ batch, potIds: [] })} />
      )}
    </>
  )
}
