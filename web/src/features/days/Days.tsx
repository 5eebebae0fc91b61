import { weekDay } from "../../ui/format"
import { Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Fragment } from "react"
import { Link } from "react-router"
import { daysQuery } from "../../api/queries"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { Jobs } from "../round"

/** The coming weeks: rounds by day, jobs, and the calendar to take along. */
export function Days() {
  const query = useQuery(daysQuery)
  return (
    <Loaded query={query}>
      {({ today, coming, jobs }) => (
        <>
          <PageHead
            title="Coming weeks"
            line={
              <>
                Each pot by its interval, holds as they stand; the busiest day has{" "}
                <Quantity
                  label="Most pots on one day"
                  value={coming.result.busiest}
                  unit="pots"
                  working={{ kind: "here", working: coming.working }}
                />
                .
              </>
            }
          >
            <Button asChild variant="outline" minH="44px">
              <Link to="/away">Going away</Link>
            </Button>
            <Button asChild variant="outline" minH="44px">
              <a href="/api/calendar.ics" download="fenwa.ics">
                Calendar file
              </a>
            </Button>
          </PageHead>
          <Grid
            templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.4fr) minmax(0,1fr)" }}
            gap="5"
            alignItems="start"
          >
            <Card title="Rounds">
              {coming.result.rounds.length === 0 && (
                <Text color="fg.muted">No pot asks for water by days.</Text>
              )}
              {coming.result.rounds.map((r) => (
                <Grid
                  key={r.on}
                  templateColumns={{
                    base: "86px minmax(0,1fr) auto",
                    md: "110px minmax(0,1fr) auto",
                  }}
                  gap="3"
                  py="1.5"
                  borderTopWidth="1px"
                  alignItems="baseline"
                >
                  <Text fontWeight={r.on === today ? "semibold" : undefined}>
                    {r.on === today ? "today" : weekDay(r.on)}
                  </Text>
                  <Text color="fg.muted">
                    {r.codes.length} {r.codes.length === 1 ? "pot" : "pots"}:{" "}
                    {r.codes.map((c, i) => (
                      <Fragment key={c}>
                        {i > 0 && ", "}
                        <Text as="span" whiteSpace="nowrap">
                          {c}
                        </Text>
                      </Fragment>
                    ))}
                  </Text>
                  <Link to={`/round/sheet?on=${r.on}`}>
                    <Text
                      as="span"
                      fontSize="sm"
                      textDecoration="underline"
                      aria-label={`Sheet for ${weekDay(r.on)}`}
                    >
                      sheet
                    </Text>
                  </Link>
                </Grid>
              ))}
            </Card>
            <Flex direction="column" gap="4">
              <Jobs jobs={jobs} today={today} title="Jobs" />
              <Card title="In your calendar">
                <Text>
                  The file holds eight weeks of rounds and jobs for any calendar program. Taken in
                  again, each entry is renewed and none is doubled; a round that falls away stays
                  until you delete it. A subscription clears it.
                </Text>
                <Text mt="2" color="fg.muted">
                  A program on this machine may subscribe to {window.location.origin}
                  /api/calendar.ics. Over the home network it would need the passphrase, which
                  calendar programs cannot give: take the file there.
                </Text>
              </Card>
            </Flex>
          </Grid>
        </>
      )}
    </Loaded>
  )
}
