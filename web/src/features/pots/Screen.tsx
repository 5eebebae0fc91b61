import { Button, Flex, Input, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useEffect, useRef, useState } from "react"
import { Link, useNavigate, useSearchParams } from "react-router"
import type { Schemas } from "../../api/client"
import { potsQuery } from "../../api/queries"
import { Loaded, PageHead, Teach } from "../../ui/Page"
import { AddPot } from "./AddPot"
import { MergeForm } from "./collection/MergeForm"
import { BulkForm } from "./collection/BulkForm"
import { ChangeInPlace } from "./collection/ChangeInPlace"
import { FastAdd } from "./collection/FastAdd"
import { PotsFile } from "./collection/PotsFile"
import { SayPots } from "./SayPots"
import { found } from "./views/find"
import { PotList } from "./views/PotList"
import { PotShelves } from "./views/PotShelves"
import { PotTable } from "./views/PotTable"

type Open = "add" | "fast" | "file" | "change" | "merge" | number | null // a number: that pot is changed in place
const VIEWS = [
  ["rails", "Rails"],
  ["table", "Table"],
  ["shelves", "Shelves"],
] as const

/** Every pot kept, with today's predicted reading on the rail, as a table or as it stands on the bench. */
export function Screen() {
  return <Loaded query={useQuery(potsQuery)}>{(page) => <Pots page={page} />}</Loaded>
}

function Pots({ page }: { page: Schemas["PotsPage"] }) {
  const [open, setOpen] = useState<Open>(null)
  const [find, setFind] = useState("")
  const [chosen, setChosen] = useState<number[]>([])
  const [params, setParams] = useSearchParams()
  const search = useRef<HTMLInputElement>(null)
  const navigate = useNavigate()
  useEffect(() => {
    if (params.has("find")) search.current?.focus()
  }, [params])
  const view = params.get("view") ?? "rails"
  const rows = found(page.pots, find)
  const picked = page.pots.filter((p) => chosen.includes(p.id))
  const close = () => setOpen(null)
  return (
    <>
      <PageHead
        title={`${page.pots.length} ${page.pots.length === 1 ? "pot" : "pots"}`}
        line="Each with the reading a pour-through would give today, and its 80 % range."
      >
        <Button asChild variant="outline" minH="44px">
          <Link to="/kinds">Kinds</Link>
        </Button>
        <Button variant="outline" minH="44px" onClick={() => setOpen("file")}>
          File
        </Button>
        {page.pots.length > 0 && (
          <Button variant="outline" minH="44px" onClick={() => setOpen("fast")}>
            Divide or cut
          </Button>
        )}
        <Button data-new minH="44px" onClick={() => setOpen("add")}>
          Add a pot
        </Button>
      </PageHead>
      {(open === "add" || (open === null && page.pots.length === 0)) && <SayPots onDone={close} />}
      {open === "add" && <AddPot count={page.pots.length} onClose={close} />}
      {open === "fast" && <FastAdd today={page.today} onClose={close} />}
      {open === "file" && <PotsFile onClose={close} />}
      {open === "change" && picked.length > 1 && <BulkForm pots={picked} onClose={close} />}
      {open === "merge" && <MergeForm pots={picked} today={page.today} onClose={close} />}
      {typeof open === "number" && <ChangeInPlace key={open} id={open} onClose={close} />}
      {page.pots.length === 0 ? (
        open === null && (
          <Teach action={<Button onClick={() => setOpen("add")}>Add the first pot</Button>}>
            A pot is what a dose attaches to: its medium and volume decide how salt gathers and
            leaves. A short code, the kind of plant, the medium and the size are enough.
          </Teach>
        )
      ) : (
        <>
          <Flex gap="3" mb="3" wrap="wrap" align="center">
            <Input
              ref={search}
              type="search"
              aria-label="Find a pot"
              placeholder="Find by code, name, kind, place or tag"
              value={find}
              onChange={(e) => setFind(e.target.value)}
              onKeyDown={(e) =>
                e.key === "Enter" && rows[0] && void navigate(`/pots/${rows[0].id}`)
              }
              bg="bg.panel"
              maxW="420px"
              minH="44px"
            />
            <Flex role="group" aria-label="How pots are shown" gap="1">
              {VIEWS.map(([key, label]) => (
                <Button
                  key={key}
                  size="sm"
                  minH="44px"
                  variant={view === key ? "solid" : "outline"}
                  aria-pressed={view === key}
                  onClick={() => setParams({ view: key }, { replace: true })}
                >
                  {label}
                </Button>
              ))}
            </Flex>
            {view === "table" && picked.length > 0 && (
              <Flex gap="2">
                <Button
                  minH="44px"
                  onClick={() => setOpen(picked.length === 1 ? (picked[0]?.id ?? null) : "change")}
                >
                  Change {picked.length}
                </Button>
                {picked.length > 1 && (
                  <Button minH="44px" variant="outline" onClick={() => setOpen("merge")}>
                    Put together
                  </Button>
                )}
                <Button asChild minH="44px" variant="outline">
                  <Link to={`/pots/labels?ids=${chosen.join(",")}`}>Labels</Link>
                </Button>
              </Flex>
            )}
          </Flex>
          {rows.length === 0 ? (
            <Text p="4">No pot goes by “{find}”.</Text>
          ) : view === "table" ? (
            <PotTable rows={rows} today={page.today} chosen={chosen} onChoose={setChosen} />
          ) : view === "shelves" ? (
            <PotShelves rows={rows} />
          ) : (
            <PotList rows={rows} today={page.today} onChange={setOpen} />
          )}
        </>
      )}
    </>
  )
}
