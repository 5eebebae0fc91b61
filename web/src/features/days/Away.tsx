import { Box, Button, Flex, Input, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link, useSearchParams } from "react-router"
import type { Schemas } from "../../api/client"
import { awayQuery, roundFirstQuery } from "../../api/queries"
import { day } from "../../ui/format"
import { Loaded, PageHead } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { A4 } from "../../ui/sheet"
import { HelperSheet } from "./HelperSheet"

const plus = (iso: string, days: number) =>
  new Date(Date.parse(`${iso}T12:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10)

/** Going away: who will not last, and a sheet for whoever helps. */
export function Away() {
  const [params] = useSearchParams()
  const today = useQuery(roundFirstQuery).data?.today
  const [chosen, setChosen] = useState({
    leaving: params.get("leaving") ?? "",
    back: params.get("back") ?? "",
  })
  const leaving = chosen.leaving || (today ?? "")
  const back = chosen.back || (leaving ? plus(leaving, 14) : "")
  const query = useQuery({ ...awayQuery(leaving, back), enabled: leaving !== "" && back !== "" })
  const set = (name: "leaving" | "back", value: string) =>
    setChosen((old) => ({ ...old, [name]: value }))
  return (
    <Box css={A4}>
      <PageHead
        title={
          leaving && back ? `Away from ${day(leaving, today)} to ${day(back, today)}` : "Going away"
        }
        line={query.data?.plan.result.sentence}
      >
        <Button data-screen-only asChild variant="outline" minH="44px">
          <Link to="/days">Back</Link>
        </Button>
        <Button data-screen-only minH="44px" disabled={!query.data} onClick={() => window.print()}>
          Print the sheet
        </Button>
      </PageHead>
      <Flex gap="3" mb="4" wrap="wrap" data-screen-only>
        <When label="Leaving" value={leaving} onChange={(v) => set("leaving", v)} />
        <When label="Back on" value={back} onChange={(v) => set("back", v)} />
      </Flex>
      <Loaded query={query}>{(page) => <Plan page={page} today={today ?? leaving} />}</Loaded>
    </Box>
  )
}

function When({
  label,
  value,
  onChange,
}: {
  label: string
  value: string
  onChange: (value: string) => void
}) {
  return (
    <Box asChild>
      <label>
        <Text fontSize="sm" mb="1">
          {label}
        </Text>
        <Input
          type="date"
          value={value}
          onChange={(e) => e.target.value && onChange(e.target.value)}
          bg="bg.panel"
          minH="44px"
        />
      </label>
    </Box>
  )
}

function Plan({ page, today }: { page: Schemas["AwayPage"]; today: string }) {
  const { result, working } = page.plan
  return (
    <>
      <Text data-screen-only mb="3">
        Water what is due on the day you leave. Pots at risk:{" "}
        <Quantity
          label="Pots at risk"
          value={result.at_risk}
          unit=""
          working={{ kind: "here", working }}
        />
        .
      </Text>
      <HelperSheet page={page} today={today} />
    </>
  )
}
