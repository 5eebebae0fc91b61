import { Box, Button, Grid } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link, useParams, useSearchParams } from "react-router"
import { lookQuery } from "../look/queries"
import { day } from "../../ui/format"
import { Loaded, PageHead } from "../../ui/Page"
import { MeasurePanel } from "./MeasurePanel"
import { photosQuery } from "./queries"
import { Tapped } from "./Tapped"
import { useTaps } from "./useTaps"

/** Measuring in one photo: the rim gives the scale, taps along the midrib the length, an outline the brown share. */
export function MeasureScreen() {
  const id = Number(useParams().id)
  const potId = Number(useSearchParams()[0].get("pot"))
  const page = useQuery(photosQuery(potId))
  const look = useQuery(lookQuery(potId))
  return (
    <Loaded query={page}>
      {(found) => {
        const photo = found.photos.find((p) => p.id === id)
        const asked = look.data
        return photo && asked ? (
          <Measure key={photo.id} photo={photo} rim_mm={found.rim_mm} asked={asked} potId={potId} />
        ) : (
          <PageHead title="Photo" line={look.isPending ? "" : "This photo is not there."} />
        )
      }}
    </Loaded>
  )
}

function Measure({
  photo,
  rim_mm,
  asked,
  potId,
}: Omit<React.ComponentProps<typeof MeasurePanel>, "taps"> & { potId: number }) {
  const taps = useTaps(photo)
  return (
    <>
      <PageHead
        title={`${asked.code}, photo of ${day(photo.on, asked.today)}`}
        line="Tap both ends of the rim, then along the leaf from its base to its tip."
      >
        <Button asChild variant="outline" minH="44px">
          <Link to={`/look/${potId}`} data-back>
            Close
          </Link>
        </Button>
      </PageHead>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 330px" }} gap="4">
        <Box bg="bg.inset" borderWidth="1px" borderRadius="lg" overflow="hidden">
          <Tapped
            photo={photo}
            mode={taps.mode}
            rim={taps.rim}
            midrib={taps.midrib}
            outline={taps.outline}
            grey={taps.grey}
            onTap={taps.tap}
            onBack={taps.back}
          />
        </Box>
        <MeasurePanel photo={photo} rim_mm={rim_mm} asked={asked} taps={taps} />
      </Grid>
    </>
  )
}
