import { amount } from "../../ui/format"
import { Box, Button, Grid, Heading, Input, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import { answer, client, type Schemas } from "../../api/client"
import { capital } from "../../ui/format"
import { Loaded, PageHead } from "../../ui/Page"
import { NameLink } from "../../ui/NameLink"

const kindsQuery = queryOptions({
  queryKey: ["kinds", "list"],
  queryFn: () => answer(client.GET("/api/kinds")),
})

/** Every kind Fenwa knows: how sure its figures are, and which of them stand here. */
export function Screen() {
  return <Loaded query={useQuery(kindsQuery)}>{(rows) => <Kinds rows={rows} />}</Loaded>
}

function Kinds({ rows }: { rows: Schemas["KindRow"][] }) {
  const [find, setFind] = useState("")
  const wanted = find.trim().toLowerCase()
  const shown = rows.filter((k) => !wanted || `${k.name} ${k.group}`.toLowerCase().includes(wanted))
  const groups = [...new Set(shown.map((k) => k.group))]
  return (
    <>
      <PageHead
        title={`${rows.length} kinds`}
        line="What each may drink, be fed and how it rests. How sure each figure is stands beside it; yours come first."
      >
        <Button asChild variant="outline" minH="44px">
          <Link to="/candidates">Will it live here?</Link>
        </Button>
      </PageHead>
      <Input
        type="search"
        aria-label="Find a kind"
        placeholder="Find a kind"
        value={find}
        onChange={(e) => setFind(e.target.value)}
        bg="bg.panel"
        maxW="420px"
        minH="44px"
        mb="3"
      />
      {groups.map((group) => (
        <Box as="section" key={group} mb="5">
          <Heading as="h2" fontSize="md" mb="2">
            {capital(group)}
          </Heading>
          <Grid
            as="ul"
            listStyleType="none"
            templateColumns={{
              base: "minmax(0,1fr)",
              md: "repeat(2, minmax(0,1fr))",
              xl: "repeat(3, minmax(0,1fr))",
            }}
            columnGap="6"
          >
            {shown
              .filter((k) => k.group === group)
              .map((k) => (
                <Box as="li" key={k.id} py="2" borderTopWidth="1px">
                  <NameLink to={`/kinds/${k.id}`}>{k.name}</NameLink>
                  <Text fontSize="sm" color="fg.muted">
                    Water up to {amount(k.water_max_uS_cm, "µS/cm")} · confidence {k.confidence}
                    {k.own ? " · your figures" : ""}
                    {k.pots ? ` · ${k.pots} here` : ""}
                  </Text>
                </Box>
              ))}
          </Grid>
        </Box>
      ))}
    </>
  )
}
