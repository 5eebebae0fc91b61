import { Box, Button, Grid } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { kindsQuery } from "../../api/waterQueries"
import { PageHead } from "../../ui/Page"
import { BlendSumCard, FlushSumCard } from "./BlendSumCard"
import { CanSumCard, FeedSumCard } from "./FeedSumCard"
import { useSums } from "./useSums"
import { DrinkSumCard, WaterSumCard } from "./WaterSumCard"
import { WayDrawing } from "./WayDrawing"

/** Six sums along the way of water, from tap to pot, without any record. */
export function Screen() {
  const sums = useSums()
  const kinds = useQuery(kindsQuery).data ?? []
  const named = (kind: string) => kinds.find((k) => k.value === kind)?.label ?? kind
  const mine = named(sums.water.values.kind)
  const other = named(sums.water.values.thinner)
  const water = sums.water.values
  const columns = { base: "minmax(0,1fr)", md: "repeat(3, minmax(0,1fr))" }
  return (
    <>
      <PageHead
        title="Quick sums"
        line="The way of water, from tap to pot. Start anywhere; the water you type flows on to the right."
      >
        <Button variant="outline" minH="44px" onClick={() => window.print()}>
          Print
        </Button>
      </PageHead>
      <Grid templateColumns={columns} gap="4" alignItems="stretch">
        <WaterSumCard live={sums.water} />
        <FeedSumCard live={sums.feed} water={water} mine={mine} other={other} />
        <FlushSumCard live={sums.flush} water={water} other={other} />
      </Grid>
      <Box my="4" display={{ base: "none", md: "block" }}>
        <WayDrawing sums={sums} />
      </Box>
      <Grid templateColumns={columns} gap="4" mt={{ base: "4", md: "0" }} alignItems="stretch">
        <DrinkSumCard live={sums.water} />
        <BlendSumCard live={sums.blend} mine={mine} other={other} />
        <CanSumCard live={sums.feed} water={water} />
      </Grid>
    </>
  )
}
