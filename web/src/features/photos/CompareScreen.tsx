import { Box, Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useParams } from "react-router"
import { Choice } from "../../ui/Choice"
import { day } from "../../ui/format"
import { Card, Loaded, PageHead, Teach } from "../../ui/Page"
import { Changes } from "./Changes"
import { OnRuler } from "./OnRuler"
import { againstQuery, type Photo, photosQuery } from "./queries"
import { TimeRings } from "./TimeRings"

/** Two photos of a plant hung from one ruler; two rings on a line of time choose which. */
export function CompareScreen() {
  const potId = Number(useParams().id)
  return (
    <Loaded query={useQuery(photosQuery(potId))}>
      {(page) =>
        page.photos.length > 1 ? (
          <Compare photos={page.photos} potId={potId} />
        ) : (
          <>
            <PageHead title="Compare two photos" />
            <Teach
              action={
                <Button asChild>
                  <Link to={`/look/${potId}`}>Look</Link>
                </Button>
              }
            >
              {page.photos.length === 1
                ? "One photo so far. Take the next from the same place."
                : "No photo yet. Take one at a look."}
            </Teach>
          </>
        )
      }
    </Loaded>
  )
}

function Compare({ photos, potId }: { photos: Photo[]; potId: number }) {
  const [at, setAt] = useState<[number, number]>([0, photos.length - 1])
  const [way, setWay] = useState("side")
  const [fade, setFade] = useState(50)
  const pair = [photos[at[0]], photos[at[1]]].map((p) => p as Photo) as [Photo, Photo]
  const found = useQuery(againstQuery(pair[0].id, pair[1].id))
  const unset = pair.filter((p) => p.scale === null)
  return (
    <>
      <PageHead
        title={`${day(pair[0].on)} and ${day(pair[1].on)}`}
        line={
          found.data?.between.sentence ??
          "Both photos hang from one ruler, set by the rim of the pot."
        }
      >
        <Button asChild variant="outline" minH="44px">
          <Link to={`/look/${potId}`} data-back>
            Close
          </Link>
        </Button>
      </PageHead>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 330px" }} gap="4">
        <Card label="Photos on one ruler">
          <Choice
            label="Shown"
            value={way}
            onValue={setWay}
            choices={[
              { value: "side", label: "side by side" },
              { value: "over", label: "over each other" },
              { value: "lines", label: "outlines over the later one" },
            ]}
          />
          {found.data ? (
            <OnRuler compared={found.data} way={way} fade={fade / 100} />
          ) : (
            <Box py="6">
              {unset.map((p) => (
                <Text key={p.id}>
                  The photo of {day(p.on)} has no scale yet.{" "}
                  <Link to={`/photos/${p.id}?pot=${potId}`} style={{ textDecoration: "underline" }}>
                    Tap both ends of its rim
                  </Link>
                  .
                </Text>
              ))}
              {unset.length === 0 && found.error && (
                <Text role="alert" color="state.stop">
                  {found.error.message}
                </Text>
              )}
            </Box>
          )}
          {way === "over" && (
            <Box asChild fontSize="sm">
              <label>
                Earlier to later
                <input
                  type="range"
                  min={0}
                  max={100}
                  step={5}
                  value={fade}
                  aria-valuetext={`later photo ${fade} % visible`}
                  style={{ width: "100%", minHeight: 44 }}
                  onChange={(e) => setFade(Number(e.target.value))}
                />
              </label>
            </Box>
          )}
          <TimeRings
            photos={photos}
            at={at}
            onAt={setAt}
            happened={found.data?.between.happened ?? []}
          />
        </Card>
        {found.data && <Changes compared={found.data} />}
      </Grid>
    </>
  )
}
