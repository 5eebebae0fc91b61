import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useParams } from "react-router"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { AxisCard } from "./AxisCard"
import { CheckForm } from "./CheckForm"
import { CloseForm } from "./CloseForm"
import { Meanwhile } from "./Meanwhile"
import { OwnCases } from "./OwnCases"
import { OneOrder, TwoOrders } from "./Orders"
import { type Wrong, wrongQuery } from "./queries"
import { Stairs } from "./Stairs"
import { lettersOf } from "./letters"
import { listed } from "../../ui/format"

/** What is wrong with a plant: what the log holds, two ways to read it, and the gentlest next check. */
export function WrongScreen() {
  const id = Number(useParams().id)
  return <Loaded query={useQuery(wrongQuery(id))}>{(page) => <View page={page} />}</Loaded>
}

function View({ page }: { page: Wrong }) {
  const [check, setCheck] = useState<string | null>(null)
  const [closing, setClosing] = useState(false)
  const next = page.stairs.result.steps.find((s) => s.state === "next")
  const letters = lettersOf(page)
  const seen =
    page.signs.length > 0 ? `Seen: ${page.signs.join(", ")}.` : "Nothing seen that is wrong."
  const looked =
    page.not_seen.length > 0 ? ` Looked for, not seen: ${listed(page.not_seen, 4)}.` : ""
  return (
    <>
      <PageHead title={`What is wrong with ${page.code} ${page.name}?`} line={seen + looked}>
        {next && (
          <Button minH="44px" onClick={() => setCheck(next.id)}>
            {next.name}
          </Button>
        )}
        <Button asChild variant="outline" minH="44px">
          <Link to={`/look/${page.pot_id}?from=pot`}>Log a look</Link>
        </Button>
        {page.case && (
          <Button variant="outline" minH="44px" onClick={() => setClosing(!closing)}>
            Close the case
          </Button>
        )}
        <Button asChild variant="outline" minH="44px">
          <Link to={`/pots/${page.pot_id}`} data-back>
            Back
          </Link>
        </Button>
      </PageHead>
      {check && <CheckForm key={check} page={page} check={check} onClose={() => setCheck(null)} />}
      {closing && page.case && (
        <CloseForm page={page} caseId={page.case.id} onClose={() => setClosing(false)} />
      )}
      <Box display="flex" flexDirection="column" gap="4">
        <Box order={{ base: 4, lg: 1 }}>
          <AxisCard page={page} letters={letters} />
        </Box>
        <Grid
          order={{ base: 3, lg: 2 }}
          templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 300px" }}
          gap="4"
          alignItems="start"
        >
          <Card label="Causes in order">
            {page.signs.length === 0 ? (
              <Text>{page.sentence}</Text>
            ) : page.readings ? (
              <TwoOrders page={page} letters={letters} />
            ) : (
              <OneOrder page={page} letters={letters} />
            )}
            {page.not_looked_for.length > 0 && (
              <Text fontSize="sm" color="fg.muted" mt="3">
                Not looked for: {page.not_looked_for.join(", ")}.
              </Text>
            )}
          </Card>
          <Flex direction="column" gap="4">
            <Meanwhile page={page} />
            <OwnCases page={page} />
          </Flex>
        </Grid>
        <Box order={{ base: 1, lg: 3 }}>
          <Stairs stairs={page.stairs} onCheck={setCheck} />
        </Box>
      </Box>
    </>
  )
}
