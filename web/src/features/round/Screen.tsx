import { Box, Button, Flex, Grid, Heading, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { roundQuery } from "../../api/queries"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { CanCard } from "./CanCard"
import { EmptyRound } from "./EmptyRound"
import { Jobs } from "./Jobs"
import { Saucers } from "./Saucers"
import { Salt } from "./Salt"

/** Today's work, grouped by what is in the can. */
export function Screen() {
  return <Loaded query={useQuery(roundQuery)}>{(page) => <Round page={page} />}</Loaded>
}

function Round({ page }: { page: Schemas["RoundPage"] }) {
  const { plan } = page
  const weekday = new Date(`${page.today}T12:00:00Z`).toLocaleDateString("en-GB", {
    weekday: "long",
    timeZone: "UTC",
  })
  const empty = page.salt.length === 0 && plan.cans.length === 0 && plan.looks.length === 0
  const pots = `${plan.pots_due} ${plan.pots_due === 1 ? "pot" : "pots"}`
  const cans = `${plan.cans.length} ${plan.cans.length === 1 ? "can" : "cans"}`
  return (
    <>
      <PageHead
        title={plan.pots_due ? `${weekday}, ${pots} in ${cans}` : `${weekday}, nothing to pour`}
        line={
          plan.pots_due ? (
            <>
              Walk the shelf in this order; isolated pots come last. About{" "}
              <Quantity
                label="Minutes"
                value={Math.round(plan.minutes)}
                unit="minutes"
                working={{ kind: "here", working: page.working }}
              />
              .
            </>
          ) : (
            "Nothing is due by its interval today. Feel what dries fast."
          )
        }
      >
        {!empty && (
          <Button asChild variant="outline" minH="48px">
            <Link to="/days">Coming weeks</Link>
          </Button>
        )}
        {plan.pots_due > 0 && (
          <Button asChild variant="outline" minH="48px">
            <Link to="/round/sheet">Sheet</Link>
          </Button>
        )}
        {plan.pots_due > 0 && (
          <Button asChild data-new minH="48px">
            <Link to="/pour">Start pouring</Link>
          </Button>
        )}
      </PageHead>
      {empty ? (
        <EmptyRound />
      ) : (
        <Grid
          templateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1.75fr) minmax(0, 1fr)" }}
          gap="5"
        >
          <Flex direction="column" gap="3">
            {plan.cans.map((can) => (
              <CanCard key={can.letter} can={can} />
            ))}
            {plan.cans.length === 0 && (
              <Card>
                <Text>No can today.</Text>
              </Card>
            )}
            {plan.saving && <Text color="fg.muted">{plan.saving}</Text>}
            {plan.clean_hands && <Text color="fg.muted">{plan.clean_hands}</Text>}
            {page.working.cautions.map((c) => (
              <Text key={c} color="state.caution">
                {c}
              </Text>
            ))}
          </Flex>
          <Flex direction="column" gap="4">
            <Saucers />
            {plan.looks.length > 0 && <Looks looks={plan.looks} />}
            <Jobs jobs={page.jobs} today={page.today} />
            <Salt rows={page.salt} />
          </Flex>
        </Grid>
      )}
    </>
  )
}

function Looks({ looks }: { looks: Schemas["PotToCheck"][] }) {
  return (
    <Box as="section">
      <Heading as="h2" fontSize="md" fontWeight="semibold" mb="2">
        Look first
      </Heading>
      <Card py="1">
        {looks.map((l) => (
          <Box
            key={`${l.pot_id}${l.reason}`}
            py="2"
            borderBottomWidth="1px"
            _last={{ borderBottomWidth: 0 }}
          >
            <Link to={`/pots/${l.pot_id}`}>
              <Text
                fontWeight="semibold"
                as="span"
                textDecoration="underline"
                textUnderlineOffset="0.2em"
              >
                {l.code} {l.name}
              </Text>
            </Link>
            <Text color="fg.muted">{l.reason}</Text>
            <Text color="fg.muted">Ends: {l.release}</Text>
          </Box>
        ))}
      </Card>
    </Box>
  )
}
