import { Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { lazy, Suspense, useDeferredValue } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { isWhole, roundFirstQuery, roundQuery } from "../../api/queries"
import { weekdayOf } from "../../ui/format"
import { Loaded, PageHead } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { Cans } from "./Cans"
import { EmptyRound } from "./EmptyRound"
import { Jobs } from "./Jobs"
import { Looks } from "./Looks"
import { Saucers } from "./Saucers"

const Salt = lazy(() => import("./Salt")) // with its axis; the first can does not wait for it

/** Today's work, grouped by what is in the can. A long round comes in two: its beginning, then all that is walked. */
export function Screen() {
  const first = useQuery(roundFirstQuery)
  const long = !!first.data && !isWhole(first.data)
  const whole = useQuery({ ...roundQuery, enabled: long })
  // one that is on its way anew still stands: lists that were opened would close and open again
  const all = long && (whole.isFetching || whole.dataUpdatedAt >= first.dataUpdatedAt)
  return <Loaded query={first}>{(page) => <Round page={(all && whole.data) || page} />}</Loaded>
}

function Round({ page }: { page: Schemas["RoundPage"] }) {
  const { plan } = page
  const weekday = weekdayOf(page.today)
  const drawn = useDeferredValue(true, false) // the first can stands before what is beside it is drawn
  const empty = page.salt.length === 0 && plan.cans.length === 0 && plan.looks.length === 0
  const pots = `${plan.pots_due} ${plan.pots_due === 1 ? "pot" : "pots"}`
  const n = plan.cans.length + page.left.cans
  const cans = `${n} ${n === 1 ? "can" : "cans"}`
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
            <Cans page={page} />
            {plan.saving && <Text color="fg.muted">{plan.saving}</Text>}
            {plan.clean_hands && <Text color="fg.muted">{plan.clean_hands}</Text>}
            {page.working.cautions.map((c) => (
              <Text key={c} color="state.caution">
                {c}
              </Text>
            ))}
          </Flex>
          <Flex direction="column" gap="4">
            {drawn && (
              <>
                <Saucers />
                <Looks page={page} />
                <Jobs jobs={page.jobs} missing={page.left.jobs} today={page.today} />
                <Suspense>
                  <Salt rows={page.salt} />
                </Suspense>
              </>
            )}
          </Flex>
        </Grid>
      )}
    </>
  )
}
