import { Box, Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { potsQuery } from "../../api/queries"
import { day } from "../../ui/format"
import { Card, Loaded, PageHead, Teach } from "../../ui/Page"
import { PotRail } from "../../ui/PotRail"
import { Quantity } from "../../ui/Quantity"
import { FlushCard } from "./FlushCard"

const share = (p: Schemas["PotRow"]) => (p.reading_uS_cm ?? 0) / p.ceiling_uS_cm

/** Pots by how near their predicted reading is to their ceiling, and what would bring one down. */
export function Screen() {
  return <Loaded query={useQuery(potsQuery)}>{(page) => <Flush page={page} />}</Loaded>
}

function Flush({ page }: { page: Schemas["PotsPage"] }) {
  const rows = page.pots
    .filter((p) => p.reading_uS_cm !== null)
    .toSorted((a, b) => share(b) - share(a))
  const [chosen, setChosen] = useState<number | null>(null)
  const pot = rows.find((p) => p.id === chosen) ?? rows[0]
  if (!pot) {
    return (
      <>
        <PageHead title="Flush" line="Salt gathers where water evaporates." />
        <Teach
          action={
            <Button asChild>
              <Link to="/pots">To the pots</Link>
            </Button>
          }
        >
          This station says when salt has gathered in a pot, and how many litres in how many rounds
          bring it down. It needs a pot with at least one pour.
        </Teach>
      </>
    )
  }
  return (
    <>
      <PageHead
        title="Salt, nearest to its ceiling first"
        line="Predicted pour-through reading and its 80 % range, against each pot’s own ceiling. µS/cm at 25 °C."
      />
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.4fr) minmax(0,1fr)" }}
        gap="4"
        alignItems="start"
      >
        <Card p="2">
          {rows.slice(0, 14).map((p) => (
            <Grid
              key={p.id}
              templateColumns={{
                base: "74px minmax(0,1fr) 62px",
                md: "74px minmax(0,1fr) 62px 132px",
              }}
              gap="3"
              alignItems="center"
              px="2"
              py="1"
              borderRadius="md"
              bg={p.id === pot.id ? "bg.subtle" : undefined}
            >
              <Button
                size="sm"
                minH="40px"
                variant={p.id === pot.id ? "solid" : "outline"}
                aria-pressed={p.id === pot.id}
                onClick={() => setChosen(p.id)}
              >
                {p.code}
              </Button>
              <PotRail row={p} />
              <Box textAlign="right">
                <Quantity
                  label={`Predicted reading of ${p.code}`}
                  kind="ec"
                  value={p.reading_uS_cm}
                  bare
                  working={{
                    kind: "fetch",
                    key: `pot-${p.id}`,
                    load: () =>
                      answer(
                        client.GET("/api/pots/{pot_id}/root-zone", {
                          params: { path: { pot_id: p.id } },
                        }),
                      ),
                  }}
                />
              </Box>
              <Text fontSize="sm" color="fg.muted" display={{ base: "none", md: "block" }}>
                {p.measured_on ? `runoff ${day(p.measured_on, page.today)}` : "no runoff read"}
              </Text>
            </Grid>
          ))}
        </Card>
        <Box>
          <FlushCard key={pot.id} potId={pot.id} code={pot.code} idealHigh={pot.ideal_high_uS_cm} />
          <Button asChild variant="outline" mt="3" minH="44px">
            <Link to={`/pots/${pot.id}`}>Open {pot.code}</Link>
          </Button>
        </Box>
      </Grid>
    </>
  )
}
