import { Box, Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link, useParams } from "react-router"
import { answer, client, type Schemas } from "../../api/client"
import { Facts } from "../../ui/Facts"
import { amount, day, figure } from "../../ui/format"
import { Loaded, PageHead } from "../../ui/Page"
import { A4 } from "../../ui/sheet"
import { became, Changed, given } from "./PlantYear"

/** A plant's own sheet, to print or to hand over with its history as a file. */
export function PassportScreen() {
  const id = Number(useParams().id)
  const query = useQuery({
    queryKey: ["pots", "one", id, "passport"],
    queryFn: () =>
      answer(client.GET("/api/pots/{pot_id}/passport", { params: { path: { pot_id: id } } })),
  })
  return <Loaded query={query}>{(p) => <Passport p={p} />}</Loaded>
}

function Passport({ p }: { p: Schemas["Passport"] }) {
  const { year } = p
  const facts: [string, string][] = [
    ["Kind", p.kind_name],
    ["Stands in", `${amount(p.volume_L, "L")}, ${p.medium}, at ${year.place}`],
    ["From", p.source || "not known"],
    ["Arrived", p.arrived_on ? day(p.arrived_on, "") : "not known"],
    ["Waters it had", year.waters.join(", ") || "none logged"],
    ["Water at most", `${amount(p.water_most_uS_cm, "µS/cm")}`],
    [
      "Feed at most",
      p.feed_most_uS_cm == null ? "no root feed" : `${amount(p.feed_most_uS_cm, "µS/cm")}`,
    ],
    [
      "Watered every",
      `${figure(p.interval_days, 2)} days, ${p.interval_by === "learnt" ? "by its log" : "as set"}`,
    ],
    ["Hazard to pets", p.hazard],
  ]
  return (
    <Box css={A4} maxW="820px">
      <PageHead
        title={`Passport of ${year.code} ${year.name}`}
        line={`As of ${day(p.today, "")}. By its own log; a rule of the kind where nothing was logged.`}
      >
        <Button data-screen-only minH="44px" onClick={() => window.print()}>
          Print
        </Button>
        <Button data-screen-only asChild variant="outline" minH="44px">
          <a href={`/api/archive/pots.zip?pot_ids=${year.pot_id}`} download>
            Export for another Fenwa
          </a>
        </Button>
        <Button data-screen-only asChild variant="outline" minH="44px">
          <Link to={`/pots/${year.pot_id}`}>Back</Link>
        </Button>
      </PageHead>
      <Facts rows={facts} />
      <Part title="The last twelve months">
        <Text>It was {given(year)}.</Text>
        <Text>It made {became(year)}.</Text>
      </Part>
      <Part title="What changed, and what that taught">
        <Changed year={year} />
      </Part>
      <Part title="Phases">
        {p.phases.length === 0 && <Text>None noted.</Text>}
        {p.phases.map((x) => (
          <Text key={`${x.on}${x.words}`}>
            {day(x.on, "")}: {x.words}
          </Text>
        ))}
      </Part>
      <Text fontSize="sm" color="fg.muted" mt="3">
        Let it stand apart for some weeks. The product’s label and local rules come first.
      </Text>
    </Box>
  )
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box as="section" mt="4" aria-label={title}>
      <Text as="h2" fontWeight="semibold">
        {title}
      </Text>
      {children}
    </Box>
  )
}
