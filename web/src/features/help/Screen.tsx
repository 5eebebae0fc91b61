import { Box, Flex, Grid, Text } from "@chakra-ui/react"
import { Fragment } from "react"
import { Link, useParams, useSearchParams } from "react-router"
import { Card, PageHead } from "../../ui/Page"
import { HELP, helpFor } from "./stations"

const underlined = { textDecoration: "underline" }

/** What a station answers, the order of work, what its signs mean. */
export function Screen() {
  const of = useSearchParams()[0].get("of")
  const asked = useParams().station ?? helpFor(of ?? "/")
  const help = HELP.find((h) => h.key === asked) ?? HELP[0]
  if (!help) return null
  return (
    <>
      <PageHead title={`Help: ${help.title}`} line={help.answers} />
      <Flex as="nav" aria-label="Help of the stations" gap="4" wrap="wrap" mb="4">
        {HELP.map((h) => (
          <Link
            key={h.key}
            to={`/help/${h.key}`}
            aria-current={h.key === help.key ? "page" : undefined}
            style={h.key === help.key ? { fontWeight: 600 } : underlined}
          >
            <Box as="span" display="inline-block" py="2.5">
              {h.title}
            </Box>
          </Link>
        ))}
      </Flex>
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "repeat(2, minmax(0,1fr))" }}
        gap="4"
        alignItems="start"
        maxW="1100px"
      >
        <Card title="The order of work">
          <Box as="ol" pl="5" listStyleType="decimal">
            {help.order.map((step) => (
              <Box as="li" key={step} mb="2">
                {step}
              </Box>
            ))}
          </Box>
          <Link to={help.to} style={underlined}>
            Open the {help.title} page
          </Link>
        </Card>
        <Card title="What the signs mean">
          <Grid as="dl" templateColumns="auto minmax(0,1fr)" gapX="4" gapY="2">
            {help.signs.map(([sign, meaning]) => (
              <Fragment key={sign}>
                <Box as="dt" fontWeight="semibold" maxW="180px">
                  {sign}
                </Box>
                <Box as="dd">{meaning}</Box>
              </Fragment>
            ))}
          </Grid>
          {help.care && (
            <Text mt="3" color="state.caution">
              {help.care}
            </Text>
          )}
        </Card>
      </Grid>
      <Text mt="4" color="fg.muted" maxW="720px">
        On every page: a number underlined with dots shows its working. Zero, not known and not
        measured are three different answers. What you delete comes back with Undo.
      </Text>
    </>
  )
}
