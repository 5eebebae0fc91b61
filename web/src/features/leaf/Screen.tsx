import { Box, Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { potsQuery } from "../../api/queries"
import { day, figure } from "../../ui/format"
import { Loaded, PageHead, Teach } from "../../ui/Page"
import { LookForm } from "../pots/LookForm"

/** Who has not been looked at for longest, and what was last seen. */
export function Screen() {
  return <Loaded query={useQuery(potsQuery)}>{(page) => <Leaf page={page} />}</Loaded>
}

function Leaf({ page }: { page: Schemas["PotsPage"] }) {
  const [open, setOpen] = useState<number | null>(null)
  const rows = page.pots.toSorted((a, b) =>
    (a.last_look_on ?? "").localeCompare(b.last_look_on ?? ""),
  )
  return (
    <>
      <PageHead
        title="Leaves, longest unseen first"
        line="The answer to a change shows in the leaf formed after it, weeks later. Old scars do not count."
      >
        {rows[0] && (
          <Button data-new minH="44px" onClick={() => setOpen(rows[0]?.id ?? null)}>
            Look at {rows[0].code}
          </Button>
        )}
      </PageHead>
      {rows.length === 0 && (
        <Teach
          action={
            <Button asChild>
              <Link to="/pots">To the pots</Link>
            </Button>
          }
        >
          This station keeps what the plants answer: leaves counted, the newest one measured, marks.
          Keep a pot first.
        </Teach>
      )}
      {open !== null && (
        <LookFor
          row={page.pots.find((p) => p.id === open)}
          today={page.today}
          onClose={() => setOpen(null)}
        />
      )}
      {rows.length > 0 && (
        <Box as="ul" listStyleType="none" bg="bg.panel" borderWidth="1px" borderRadius="lg">
          {rows.map((r) => (
            <Grid
              as="li"
              key={r.id}
              templateColumns={{
                base: "minmax(0,1fr) auto",
                md: "minmax(0,1.4fr) minmax(0,2fr) auto",
              }}
              gap="3"
              alignItems="center"
              px="4"
              py="2"
              borderTopWidth="1px"
              _first={{ borderTopWidth: 0 }}
            >
              <Box minW="0">
                <Link to={`/pots/${r.id}`}>
                  <Text
                    as="span"
                    fontWeight="semibold"
                    textDecoration="underline"
                    textUnderlineOffset="0.2em"
                  >
                    {r.code} {r.name}
                  </Text>
                </Link>
                <Text fontSize="sm" color="fg.muted">
                  {r.last_look_on
                    ? `last looked at ${day(r.last_look_on, page.today)}`
                    : "never looked at"}
                </Text>
              </Box>
              <Text
                fontSize="sm"
                gridRow={{ base: 2, md: "auto" }}
                gridColumn={{ base: "1 / -1", md: "auto" }}
              >
                {r.leaves_count === null ? "leaves not counted" : `${r.leaves_count} leaves`} ·{" "}
                {r.newest_leaf_mm === null
                  ? "newest not measured"
                  : `newest measured ${figure(r.newest_leaf_mm)} mm`}
                {r.marks.length > 0 && ` · marks: ${r.marks.join(", ")}`}
              </Text>
              <Button
                size="sm"
                minH="44px"
                variant="outline"
                aria-label={`Log a look at ${r.code}`}
                onClick={() => {
                  setOpen(r.id)
                  window.scrollTo(0, 0)
                }}
              >
                Look
              </Button>
            </Grid>
          ))}
        </Box>
      )}
    </>
  )
}

function LookFor({
  row,
  today,
  onClose,
}: {
  row?: Schemas["PotRow"]
  today: string
  onClose: () => void
}) {
  if (!row) return null
  const last = {
    id: 0,
    on: row.last_look_on ?? today,
    leaves_count: row.leaves_count,
    newest_leaf_mm: row.newest_leaf_mm,
    new_leaf: false,
    marks: row.marks,
    unknown: [],
    note: "",
  }
  return (
    <Box>
      <Text fontWeight="semibold" mb="1">
        {row.code} {row.name}
      </Text>
      <LookForm key={row.id} potId={row.id} last={last} today={today} onClose={onClose} />
    </Box>
  )
}
