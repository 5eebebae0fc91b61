import { Box, Button, Flex, Grid, Input, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useEffect, useRef, useState } from "react"
import { Link, useNavigate, useSearchParams } from "react-router"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { potsQuery } from "../../api/queries"
import { day } from "../../ui/format"
import { PotRail } from "../../ui/PotRail"
import { Loaded, PageHead, Teach } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { AddPot } from "./AddPot"

/** Every pot kept, with today's predicted reading on the rail. */
export function Screen() {
  return <Loaded query={useQuery(potsQuery)}>{(page) => <Pots page={page} />}</Loaded>
}

function Pots({ page }: { page: Schemas["PotsPage"] }) {
  const [adding, setAdding] = useState(false)
  const [find, setFind] = useState("")
  const [params] = useSearchParams()
  const search = useRef<HTMLInputElement>(null)
  const navigate = useNavigate()
  useEffect(() => {
    if (params.has("find")) search.current?.focus()
  }, [params])
  const wanted = find.trim().toLowerCase()
  const rows = page.pots.filter((p) => !wanted || [p.code, p.name, p.profile, p.place, p.spot].some((t) => t.toLowerCase().includes(wanted)))
  return (
    <>
      <PageHead title={`${page.pots.length} ${page.pots.length === 1 ? "pot" : "pots"} kept`} line="Each with the reading a pour-through would give today, and its 80 % range.">
        <Button asChild variant="outline" minH="44px"><Link to="/kinds">Kinds</Link></Button>
        <Button data-new minH="44px" onClick={() => setAdding(true)}>Keep a pot</Button>
      </PageHead>
      {adding && <AddPot count={page.pots.length} onClose={(id) => { setAdding(false); if (id) void navigate(`/pots/${id}`) }} />}
      {page.pots.length === 0 ? (
        !adding && <Teach action={<Button onClick={() => setAdding(true)}>Keep the first pot</Button>}>A pot is what a dose attaches to: its medium and volume decide how salt gathers and leaves. A short code, the kind of plant, the medium and the size are enough.</Teach>
      ) : (
        <>
          <Input ref={search} type="search" aria-label="Find a pot" placeholder="Find by code, name, kind or place" value={find} onChange={(e) => setFind(e.target.value)} onKeyDown={(e) => e.key === "Enter" && rows[0] && void navigate(`/pots/${rows[0].id}`)} bg="bg.panel" maxW="420px" minH="44px" mb="3" />
          <Box as="ul" listStyleType="none" bg="bg.panel" borderWidth="1px" borderRadius="lg">
            {rows.map((r) => <Row key={r.id} row={r} today={page.today} />)}
            {rows.length === 0 && <Text p="4">No pot goes by “{find}”.</Text>}
          </Box>
        </>
      )}
    </>
  )
}

function Row({ row, today }: { row: Schemas["PotRow"]; today: string }) {
  return (
    <Grid as="li" templateColumns={{ base: "minmax(0,1fr) auto", md: "minmax(0,1.5fr) minmax(0,1.4fr) 92px minmax(0,1.6fr)" }} gapX="4" gapY="1" alignItems="center" px="4" py="2" borderTopWidth="1px" _first={{ borderTopWidth: 0 }}>
      <Box minW="0">
        <Link to={`/pots/${row.id}`}><Text as="span" fontWeight="semibold" textDecoration="underline" textUnderlineOffset="0.2em">{row.code} {row.name}</Text></Link>
        <Text fontSize="sm" color="fg.muted" truncate>{row.phase} · {row.place}{row.spot ? `, ${row.spot}` : ""}</Text>
      </Box>
      <Box gridRow={{ base: 2, md: "auto" }} gridColumn={{ base: "1 / -1", md: "auto" }}><PotRail row={row} /></Box>
      <Flex justify="flex-end">
        <Quantity label={`Predicted reading of ${row.code}`} kind="ec" value={row.reading_uS_cm} none="no pour yet" bare working={{ kind: "fetch", key: `pot-${row.id}`, load: () => answer(client.GET("/api/pots/{pot_id}/root-zone", { params: { path: { pot_id: row.id } } })) }} />
      </Flex>
      <Text fontSize="sm" color="fg.muted" gridColumn={{ base: "1 / -1", md: "auto" }}>{row.holds.find((h) => !h.standing && !h.word)?.reason ?? [row.last_pour_on && `poured ${day(row.last_pour_on, today)}`, row.marks.length > 0 && `marks: ${row.marks.join(", ")}`].filter(Boolean).join(" · ")}</Text>
    </Grid>
  )
}
