import { Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useParams } from "react-router"
import { answer, client, keyed } from "../../api/client"
import { Choice } from "../../ui/Choice"
import { Entry } from "../../ui/Entry"
import { day } from "../../ui/format"
import { useNotice } from "../../ui/noticeContext"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"
import { type Overlay, seasonsQuery } from "./queries"
import { SeasonDrawing } from "./SeasonDrawing"
import { SeasonTable } from "./SeasonTable"

/** Two seasons of a plant hung on one line that begins when it woke. */
export function SeasonsScreen() {
  const id = Number(useParams().id)
  const [by, setBy] = useState<Overlay["by"]>("seasons")
  return (
    <Loaded query={useQuery(seasonsQuery(id, by))}>
      {(page) => <Seasons key={page.by} page={page} by={by} onBy={setBy} />}
    </Loaded>
  )
}

function Seasons({
  page,
  by,
  onBy,
}: {
  page: Overlay
  by: Overlay["by"]
  onBy: (by: Overlay["by"]) => void
}) {
  const [noting, setNoting] = useState(false)
  const woke = page.seasons.map((s) => `${s.name}: ${day(s.woke_on)}`).join(", ")
  return (
    <>
      <PageHead
        title={`${page.code} ${page.name}, ${by === "growths" ? "growths" : "seasons"} from ${page.cue}`}
        line={`${woke || "Nothing logged yet"}.${page.poisonous ? " Poisonous to pets." : ""}`}
      >
        <Button minH="44px" onClick={() => setNoting(!noting)}>
          Note for next season
        </Button>
        <Button variant="outline" minH="44px" onClick={() => window.print()}>
          Print
        </Button>
        <Button asChild variant="outline" minH="44px">
          <Link to={`/pots/${page.pot_id}`} data-back>
            Back
          </Link>
        </Button>
      </PageHead>
      {noting && <NoteForm page={page} onDone={() => setNoting(false)} />}
      <Flex mb="3">
        <Choice
          label="Laid over each other"
          value={by}
          onValue={(v) => onBy(v as Overlay["by"])}
          choices={[
            { value: "seasons", label: "seasons" },
            { value: "growths", label: "growths and bulbs" },
          ]}
        />
      </Flex>
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 400px" }}
        gap="4"
        alignItems="start"
      >
        <Card label="Seasons over each other">
          <SeasonDrawing page={page} />
        </Card>
        <Card title="What differed">
          <Text mb="2">
            {page.overlay && (
              <>
                Day{" "}
                <Quantity
                  label="Shared age"
                  value={page.overlay.result.age_days}
                  unit=""
                  working={{ kind: "here", working: page.overlay.working }}
                />
                :{" "}
              </>
            )}
            {page.sentence}
          </Text>
          {page.overlay && <SeasonTable overlay={page.overlay.result} />}
        </Card>
      </Grid>
    </>
  )
}

function NoteForm({ page, onDone }: { page: Overlay; onDone: () => void }) {
  const [what, setWhat] = useState("")
  const [again, setAgain] = useState("")
  const notice = useNotice()
  const undo = useUndo()
  const save = usePress(
    (_: null, key: string) =>
      answer(
        client.POST("/api/pots/{pot_id}/decisions", {
          params: { ...keyed(key), path: { pot_id: page.pot_id } },
          body: { on: page.today, what: "Next season", why: what, look_again_on: again || null },
        }),
      ),
    (stored) => {
      notice({ text: "Note saved.", undo: () => undo("decision", stored.id) })
      onDone()
    },
  )
  return (
    <Card title="Note for next season" mb="4">
      <Flex gap="3" wrap="wrap" align="flex-end">
        <Entry
          label="What to do then"
          value={what}
          onValue={setWhat}
          problem={save.error?.message}
        />
        <Entry label="Asked on" type="date" w="170px" value={again} onValue={setAgain} />
        <Button minH="48px" loading={save.isPending} onClick={() => save.mutate(null)}>
          Save
        </Button>
        <Button minH="48px" variant="outline" data-back onClick={onDone}>
          Cancel
        </Button>
      </Flex>
    </Card>
  )
}
