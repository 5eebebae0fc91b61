import { Box, Button, Grid } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link, useNavigate, useParams, useSearchParams } from "react-router"
import { Loaded, PageHead, Teach } from "../../ui/Page"
import { Choice } from "../../ui/Choice"
import { day } from "../../ui/format"
import { AnswersCard } from "./AnswersCard"
import { LookSheet } from "./LookSheet"
import { PhotosCard } from "../photos/PhotosCard"
import { LeavesCard } from "./LeavesCard"
import { SeriesCard } from "./SeriesCard"
import { type Asked, lookQuery, looksQuery } from "./queries"

/** Looks, one plant after the other, those unseen longest first; or one plant by its own address. */
export function Screen() {
  const id = useParams().id
  return id === undefined ? <Walk /> : <One potId={Number(id)} />
}

function Walk() {
  return (
    <Loaded query={useQuery(looksQuery)}>
      {(page) =>
        page.looks[0] ? (
          <Sheet asked={page.looks[0]} next={page.looks[1]} />
        ) : (
          <>
            <PageHead title="Look" />
            <Teach
              action={
                <Button asChild>
                  <Link to="/pots">To the pots</Link>
                </Button>
              }
            >
              There is no plant to look at yet.
            </Teach>
          </>
        )
      }
    </Loaded>
  )
}

function One({ potId }: { potId: number }) {
  const walk = useQuery(looksQuery).data?.looks ?? []
  const chosen = useSearchParams()[0].get("plant")
  const one = useQuery(lookQuery(potId, chosen === null ? undefined : Number(chosen)))
  const known = one.data ?? (chosen === null ? walk.find((x) => x.pot_id === potId) : undefined)
  const next = walk[walk.findIndex((x) => x.pot_id === potId) + 1] // the first one, if it is none of them
  if (known) return <Sheet key={known.plant_id} asked={known} next={next} />
  return <Loaded query={one}>{(asked) => <Sheet asked={asked} next={next} />}</Loaded>
}

function Sheet({ asked, next: after }: { asked: Asked; next?: Asked }) {
  const go = useNavigate()
  const fromPot = useSearchParams()[0].get("from") === "pot"
  const next = fromPot ? undefined : after
  const back = fromPot ? `/pots/${asked.pot_id}` : "/leaf"
  return (
    <>
      <PageHead
        title={`${asked.code} ${asked.name}`}
        line={asked.last_on ? `Last look ${day(asked.last_on, asked.today)}.` : "Never looked at."}
      >
        {asked.plants.length > 1 && (
          <Choice
            label="Which plant"
            value={String(asked.plant_id)}
            choices={asked.plants.map((p) => ({ value: String(p.id), label: p.label }))}
            onValue={(v) => void go(`/look/${asked.pot_id}?plant=${v}`)}
          />
        )}
        <Button asChild variant="outline" minH="44px">
          <Link to={`/pots/${asked.pot_id}`}>The pot</Link>
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to={back} data-back>
            Close
          </Link>
        </Button>
      </PageHead>
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,520px) minmax(0,1fr)" }}
        gap="5"
      >
        <LookSheet
          key={`${asked.pot_id}-${asked.last_on}`}
          asked={asked}
          next={next}
          onDone={() => void go(next ? `/look/${next.pot_id}` : back)}
        />
        <Box>
          <PhotosCard potId={asked.pot_id} today={asked.today} code={asked.code} />
          <LeavesCard potId={asked.pot_id} today={asked.today} />
          <AnswersCard potId={asked.pot_id} today={asked.today} />
          <SeriesCard potId={asked.pot_id} today={asked.today} />
        </Box>
      </Grid>
    </>
  )
}
