import { ecScale } from "../../ui/format"
import { Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { waterQuery } from "../../api/queries"
import { Card, Loaded, PageHead, Teach } from "../../ui/Page"
import { ReadingForm } from "./reading/ReadingForm"
import { SourceForm } from "./SourceForm"
import { SourceCard } from "./SourceCard"
import { Tools } from "./tools/Tools"
import { VerdictMatrix } from "./VerdictMatrix"
import { Waterline } from "./Waterline"

/** Waters above the line, plants below it: who may drink what. */
export function Screen() {
  return <Loaded query={useQuery(waterQuery)}>{(page) => <Water page={page} />}</Loaded>
}

const NUMBERS = [
  "No",
  "One",
  "Two",
  "Three",
  "Four",
  "Five",
  "Six",
  "Seven",
  "Eight",
  "Nine",
  "Ten",
  "Eleven",
  "Twelve",
]
const counted = (n: number, one: string, many: string) =>
  `${NUMBERS[n] ?? n} ${n === 1 ? one : many}`

function Water({ page }: { page: Schemas["WaterPage"] }) {
  const [open, setOpen] = useState<"reading" | "source" | null>(null)
  const [chosen, setChosen] = useState<number | null>(null)
  const water = page.waters.find((w) => w.id === chosen) ?? page.waters[0]
  return (
    <>
      <PageHead
        title={[
          counted(page.waters.length, "water", "waters"),
          `${counted(page.groups.length, "kind", "kinds").toLowerCase()} of plant`,
        ].join(", ")}
        line={`A plant may drink any water that floats to the left of its mark. ${ecScale()}.`}
      >
        {page.waters.length > 0 && (
          <Button asChild variant="outline" minH="44px">
            <Link to="/water/sheet">Print my waters</Link>
          </Button>
        )}
        <Button variant="outline" minH="44px" onClick={() => setOpen("source")}>
          Add a source
        </Button>
        {page.waters.length > 0 && (
          <Button data-new minH="44px" onClick={() => setOpen("reading")}>
            Enter a reading
          </Button>
        )}
      </PageHead>
      {open === "reading" && water && (chosen === null || water.id === chosen) && (
        <ReadingForm
          key={water.id}
          waters={page.waters}
          today={page.today}
          chosen={water.id}
          onClose={() => setOpen(null)}
        />
      )}
      {open === "source" && (
        <SourceForm
          onClose={(id) => {
            setOpen(id ? "reading" : null)
            setChosen(id ?? chosen)
          }}
        />
      )}
      {page.waters.length === 0 ? (
        open === null && (
          <Teach
            action={
              <Button data-new onClick={() => setOpen("source")}>
                Add the first source
              </Button>
            }
          >
            This station says which plant may drink which water. Start with the water you use: its
            name, its kind, and what your pen shows.
          </Teach>
        )
      ) : (
        <>
          <Waterline page={page} chosen={water?.id} onChoose={setChosen} />
          {water && <Tools page={page} chosen={water.id} />}
          <Grid
            templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,2fr)" }}
            gap="4"
            mt="4"
          >
            {water && <SourceCard water={water} today={page.today} />}
            <Card title="What may be poured">
              {page.groups.length === 0 ? (
                <Text color="fg.muted">
                  Add a pot, and each water gets a verdict for its plant.
                </Text>
              ) : (
                <VerdictMatrix page={page} chosen={water?.id} onChoose={setChosen} />
              )}
            </Card>
          </Grid>
        </>
      )}
    </>
  )
}
