import { Box, Button, Flex, Grid, Image, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link, useSearchParams } from "react-router"
import { lanQuery, potNamesQuery, usePotRows, useSettings } from "../../../api/queries"
import { Loaded, PageHead } from "../../../ui/Page"

/** Labels to cut out: code, plant, and the way to its page for a phone's camera. */
export function Labels() {
  const wanted = useSearchParams()[0].get("ids")?.split(",").map(Number)
  return wanted ? <Sheet ids={wanted} /> : <OfAll />
}

/** Without a choice every pot has its label. */
function OfAll() {
  return (
    <Loaded query={useQuery(potNamesQuery)}>
      {(names) => <Sheet ids={names.map((n) => n.id)} />}
    </Loaded>
  )
}

function Sheet({ ids }: { ids: number[] }) {
  const rows = usePotRows(ids)
  const lan = useQuery(lanQuery).data
  const name = useSettings()?.collection_name
  if (!rows) return <Text role="status">One moment.</Text>
  return (
    <>
      <PageHead
        title={`${rows.length} ${rows.length === 1 ? "label" : "labels"}`}
        line={
          lan?.open
            ? "The code opens the pot’s page on a phone that has signed in."
            : "The code leads to this machine only. Start with --lan, and print then, for codes a phone can open."
        }
      >
        <Button data-screen-only asChild variant="outline" minH="44px">
          <Link to="/pots?view=table">Back</Link>
        </Button>
        <Button data-screen-only minH="44px" onClick={() => window.print()}>
          Print
        </Button>
      </PageHead>
      <Grid templateColumns="repeat(auto-fill, minmax(64mm, 1fr))" gap="0">
        {rows.map((r) => (
          <Flex
            key={r.id}
            align="center"
            gap="3"
            borderWidth="1px"
            borderStyle="dashed"
            borderColor="border.strong"
            p="2mm"
            minH="30mm"
            bg="white"
            color="black"
            css={{ breakInside: "avoid" }}
          >
            <Image src={`/api/pots/${r.id}/qr.svg`} alt={`QR code of ${r.code}`} boxSize="25mm" />
            <Box minW="0">
              <Text fontSize="xl" fontWeight="bold" lineHeight="1.1">
                {r.code}
              </Text>
              <Text fontSize="sm" lineHeight="1.25">
                {r.name}
              </Text>
              {r.plants.join(", ") !== r.name && (
                <Text fontSize="xs" lineHeight="1.25">
                  {r.plants.join(", ")}
                </Text>
              )}
              {name && <Text fontSize="xs">{name}</Text>}
            </Box>
          </Flex>
        ))}
      </Grid>
    </>
  )
}
