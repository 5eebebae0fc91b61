import { Box, Button, Input, Text } from "@chakra-ui/react"
import { useInfiniteQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { useSettings } from "../../api/queries"
import { DataTable } from "../../ui/DataTable"
import { day, figure } from "../../ui/format"
import { MoreRows } from "../../ui/MoreRows"
import { Loaded, PageHead } from "../../ui/Page"
import { A4 } from "../../ui/sheet"
import { Changed, often, type Year } from "./PlantYear"
import { reportQuery } from "./queries"

const HEAD = ["Plant", "Fed", "Flushed", "Leaves", "Flowers", "What changed, and what that taught"]

/** A season on paper: every plant since a day. The screen begins with some of them, paper has them all. */
export function ReportScreen() {
  const [since, setSince] = useState<string>()
  const usual = useInfiniteQuery(reportQuery())
  const asked = useInfiniteQuery({ ...reportQuery(since), enabled: !!since, retry: false })
  const query = since && !asked.isError ? asked : usual // a day that is refused leaves the usual year
  const [printing, setPrinting] = useState(false)
  const print = async () => {
    setPrinting(true)
    for (let more = query.hasNextPage; more;) {
      const next = await query.fetchNextPage()
      more = next.hasNextPage && !next.isError
    }
    setPrinting(false)
    setTimeout(() => window.print()) // once the last of them are drawn
  }
  return (
    <Loaded query={query}>
      {({ pages }) => {
        const [first] = pages
        const plants = pages.flatMap((p) => p.plants)
        return (
          first && (
            <Box css={A4}>
              <ReportHead report={first} onSince={setSince}>
                <Button
                  data-screen-only
                  minH="44px"
                  loading={printing}
                  onClick={() => void print()}
                >
                  Print
                </Button>
              </ReportHead>
              {asked.error && (
                <Text role="alert" color="state.stop">
                  {asked.error.message}
                </Text>
              )}
              <DataTable label="Plants" head={HEAD} minW="900px" stacked>
                {plants.map((p) => (
                  <PlantRow key={p.pot_id} year={p} until={first.until} />
                ))}
              </DataTable>
              <MoreRows query={query} left={first.total - plants.length} />
              <Losses report={first} />
            </Box>
          )
        )
      }}
    </Loaded>
  )
}

type Report = Schemas["SeasonReport"]

function ReportHead({
  report: r,
  onSince,
  children,
}: {
  report: Report
  onSince: (day: string) => void
  children: React.ReactNode
}) {
  const name = useSettings()?.collection_name
  return (
    <PageHead
      title={`Season report, ${day(r.since, "")} to ${day(r.until, "")}`}
      line={`${name ? `${name}. ` : ""}${r.total} plants, ${r.losses.length} lost.`}
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
      {children}
      <Button data-screen-only asChild variant="outline" minH="44px">
        <Link to="/changes">Every change</Link>
      </Button>
    </PageHead>
  )
}

function PlantRow({ year, until }: { year: Year; until: string }) {
  const { sum, flushes, last_flush_on, flowers } = year
  const cells = [
    <>
      <b>{year.code}</b> {year.name}
    </>,
    often(sum.feeds) +
      (sum.feeds > 0 ? `, ${figure(sum.nitrogen_mg)} mg N` : "") +
      (sum.unknown > 0 ? `, ${sum.unknown} not known` : ""),
    often(flushes) + (last_flush_on ? `, ${day(last_flush_on, until)}` : ""),
    sum.leaves,
    flowers ?? "not counted",
    <Changed year={year} />,
  ]
  return (
    <tr>
      {cells.map((cell, i) => (
        <td key={HEAD[i]} data-head={i ? HEAD[i] : undefined}>
          {cell}
        </td>
      ))}
    </tr>
  )
}

function Losses({ report: r }: { report: Report }) {
  return (
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
  )
}
