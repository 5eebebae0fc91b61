import { Box, Button, Input, Text } from "@chakra-ui/react"
import { keepPreviousData, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import { answer, client, type Schemas } from "../../api/client"
import { useSettings } from "../../api/queries"
import { DataTable } from "../../ui/DataTable"
import { day, figure } from "../../ui/format"
import { Loaded, PageHead } from "../../ui/Page"
import { A4 } from "../../ui/sheet"
import { Changed, often } from "./PlantYear"

const HEAD = ["Plant", "Fed", "Flushed", "Leaves", "Flowers", "What changed, and what that taught"]

/** A season on paper: every plant since a day. */
export function ReportScreen() {
  const [since, setSince] = useState<string>()
  const query = useQuery({
    queryKey: ["season-report", since],
    queryFn: () => answer(client.GET("/api/season-report", { params: { query: { since } } })),
    placeholderData: keepPreviousData,
    retry: false,
  })
  return (
    <Loaded query={query}>
      {(r) => <Report r={r} problem={query.error?.message} onSince={setSince} />}
    </Loaded>
  )
}

function Report({
  r,
  problem,
  onSince,
}: {
  r: Schemas["SeasonReport"]
  problem?: string
  onSince: (day: string) => void
}) {
  const name = useSettings()?.collection_name
  return (
    <Box css={A4}>
      <PageHead
        title={`Season report, ${day(r.since, "")} to ${day(r.until, "")}`}
        line={`${name ? `${name}. ` : ""}${r.plants.length} plants, ${r.losses.length} lost.`}
      >
        <Input
          data-screen-only
          type="date"
          aria-label="Since"
          minH="44px"
          w="auto"
          defaultValue={r.since}
          max={r.until}
          onChange={(e) => e.target.value && onSince(e.target.value)}
        />
        <Button data-screen-only minH="44px" onClick={() => window.print()}>
          Print
        </Button>
        <Button data-screen-only asChild variant="outline" minH="44px">
          <Link to="/changes">Every change</Link>
        </Button>
      </PageHead>
      {problem && (
        <Text role="alert" color="state.stop">
          {problem}
        </Text>
      )}
      <DataTable label="Plants" head={HEAD} minW="900px">
        {r.plants.map((p) => (
          <tr key={p.pot_id}>
            <td>
              <b>{p.code}</b> {p.name}
            </td>
            <td>
              {often(p.sum.feeds)}
              {p.sum.feeds > 0 && `, ${figure(p.sum.nitrogen_mg)} mg N`}
              {p.sum.unknown > 0 && `, ${p.sum.unknown} not known`}
            </td>
            <td>
              {often(p.flushes)}
              {p.last_flush_on && `, ${day(p.last_flush_on, r.until)}`}
            </td>
            <td>{p.sum.leaves}</td>
            <td>{p.flowers ?? "not counted"}</td>
            <td>
              <Changed year={p} />
            </td>
          </tr>
        ))}
      </DataTable>
      <Box as="section" mt="4" aria-label="Losses">
        <Text as="h2" fontWeight="semibold">
          Losses
        </Text>
        {r.losses.length === 0 && <Text>None.</Text>}
        {r.losses.map((x) => (
          <Text key={`${x.on}${x.code}${x.name}`}>
            {day(x.on, r.until)}: {x.code} {x.name}, {x.cause || "cause not known"}
          </Text>
        ))}
      </Box>
    </Box>
  )
}
