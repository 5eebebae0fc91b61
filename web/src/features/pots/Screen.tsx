import { Button, Text } from "@chakra-ui/react"
import { useInfiniteQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useSearchParams } from "react-router"
import type { Schemas } from "../../api/client"
import { potsQuery } from "../../api/queries"
import { MoreRows, type Windowed } from "../../ui/MoreRows"
import { Loaded, PageHead, Teach } from "../../ui/Page"
import { useSettled } from "../../ui/useLiveForm"
import { AddPot } from "./AddPot"
import { MergeForm } from "./collection/MergeForm"
import { BulkForm } from "./collection/BulkForm"
import { ChangeInPlace } from "./collection/ChangeInPlace"
import { FastAdd } from "./collection/FastAdd"
import { PotsFile } from "./collection/PotsFile"
import { PotsBar } from "./PotsBar"
import { SayPots } from "./SayPots"
import { PotList } from "./views/PotList"
import { PotShelves } from "./views/PotShelves"
import { PotTable } from "./views/PotTable"

type Row = Schemas["PotRow"]
export type Open = "add" | "fast" | "file" | "change" | "merge" | number | null // a number: that pot is changed in place
/** Every pot kept, with today's predicted reading on the rail, as a table or as it stands on the bench. */
export function Screen() {
  const [find, setFind] = useState("")
  const query = useInfiniteQuery(potsQuery(useSettled(find, 150)))
  return (
    <Loaded query={query}>
      {({ pages }) => {
        const [page] = pages
        const rows = pages.flatMap((p) => p.pots)
        return page && <Pots {...{ page, rows, find, query }} onFind={setFind} />
      }}
    </Loaded>
  )
}

type Shown = {
  page: Schemas["PotsPage"]
  rows: Row[]
  find: string
  onFind: (find: string) => void
  query: Windowed
}

function Pots({ page, rows, find, onFind, query }: Shown) {
  const [open, setOpen] = useState<Open>(null)
  const [picked, setPicked] = useState<Row[]>([])
  const view = useSearchParams()[0].get("view") ?? "rails"
  const close = () => setOpen(null)
  const chosen = picked.map((p) => p.id)
  const choose = (ids: number[]) =>
    setPicked(
      [...new Map([...picked, ...rows].map((r) => [r.id, r])).values()].filter((r) =>
        ids.includes(r.id),
      ),
    )
  return (
    <>
      <PageHead
        title={`${page.kept} ${page.kept === 1 ? "pot" : "pots"}`}
        line="Each with the reading a pour-through would give today, and its 80 % range."
      >
        <Button asChild variant="outline" minH="44px">
          <Link to="/kinds">Kinds</Link>
        </Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("file")}>
          File
        </Button>
        {page.kept > 0 && (
          <Button variant="outline" minH="44px" onClick={() => setOpen("fast")}>
            Divide or cut
          </Button>
        )}
        <Button data-new minH="44px" onClick={() => setOpen("add")}>
          Add a pot
        </Button>
      </PageHead>
      {(open === "add" || (open === null && page.kept === 0)) && <SayPots onDone={close} />}
      {open === "add" && <AddPot count={page.kept} onClose={close} />}
      {open === "fast" && <FastAdd today={page.today} onClose={close} />}
      {open === "file" && <PotsFile onClose={close} />}
      {open === "change" && picked.length > 1 && <BulkForm pots={picked} onClose={close} />}
      {open === "merge" && <MergeForm pots={picked} today={page.today} onClose={close} />}
      {typeof open === "number" && <ChangeInPlace key={open} id={open} onClose={close} />}
      {page.kept === 0 ? (
        open === null && (
          <Teach action={<Button onClick={() => setOpen("add")}>Add the first pot</Button>}>
            A pot is what a dose attaches to: its medium and volume decide how salt gathers and
            leaves. A short code, the kind of plant, the medium and the size are enough.
          </Teach>
        )
      ) : (
        <>
          <PotsBar find={find} onFind={onFind} view={view} picked={picked} onOpen={setOpen} />
          {rows.length === 0 ? (
            <Text p="4">No pot goes by “{find}”.</Text>
          ) : view === "table" ? (
            <PotTable rows={rows} today={page.today} chosen={chosen} onChoose={choose} />
          ) : view === "shelves" ? (
            <PotShelves rows={rows} />
          ) : (
            <PotList rows={rows} today={page.today} onChange={setOpen} />
          )}
          <MoreRows query={query} left={page.total - rows.length} auto />
        </>
      )}
    </>
  )
}
