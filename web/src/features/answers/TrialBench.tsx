import { Box, Flex, Text } from "@chakra-ui/react"
import { Link } from "react-router"
import { day } from "../../ui/format"
import { Card } from "../../ui/Page"
import { PairLine } from "./PairLine"
import { LeaveOut } from "./LeaveOut"
import type { TrialPage } from "./queries"

/** The bench: pairs side by side with their differences on one axis, or phases in time. */
export function TrialBench({ page }: { page: TrialPage }) {
  const { plan, members, answer } = page
  const of = (id: number) => members.find((m) => m.pot_id === id)
  const ends = answer.pairs.flatMap((p) => [p.answer.low_shown, p.answer.high_shown])
  const most = Math.max(20, ...ends.map((v) => Math.abs(v ?? 0))) * 1.05
  return (
    <Card label="Who takes part">
      {plan.phases.length > 0 && <Phases page={page} />}
      {plan.pairs.map((pair, i) => {
        const changed = of(pair.changed)
        const other = of(pair.changed === pair.first ? pair.second : pair.first)
        const told = answer.pairs[i]
        return (
          <Box key={pair.first} borderTopWidth={i ? "1px" : undefined} py="2">
            <Flex gap="3" wrap="wrap" align="baseline" justify="space-between">
              <Text>
                <Link
                  to={`/pots/${changed?.pot_id}`}
                  style={{ textDecoration: "underline", fontWeight: 600 }}
                >
                  {changed?.code}
                </Link>{" "}
                <Box as="span" color="fg.muted">
                  {changed?.gives}
                </Box>{" "}
                against{" "}
                <Link
                  to={`/pots/${other?.pot_id}`}
                  style={{ textDecoration: "underline", fontWeight: 600 }}
                >
                  {other?.code}
                </Link>
              </Text>
              <Flex align="center" gap="2">
                <Text fontSize="sm" color="fg.muted">
                  leaves gained {changed?.gained} and {other?.gained}
                </Text>
                {page.row.running && changed && !told?.left_out && (
                  <LeaveOut trialId={page.row.id} member={changed} />
                )}
              </Flex>
            </Flex>
            {told && <PairLine told={told} unit={page.unit} most={most} />}
          </Box>
        )
      })}
      {plan.design === "groups" &&
        members.map((m) => (
          <Text key={m.pot_id} borderTopWidth="1px" py="1.5">
            {m.code}: {m.changed ? m.gives : "not changed"}, {m.gained} leaves gained
            {m.left_out && `; left out: ${m.left_out}`}
          </Text>
        ))}
    </Card>
  )
}

function Phases({ page }: { page: TrialPage }) {
  return (
    <Flex gap="1" wrap="wrap">
      {page.plan.phases.map((x) => (
        <Box
          key={x.since}
          flex="1 1 120px"
          borderWidth="1px"
          borderRadius="md"
          p="2"
          bg={x.changed ? "comfort" : "bg.inset"}
          fontWeight={x.since <= page.today && page.today <= x.until ? "semibold" : undefined}
        >
          {day(x.since, page.today)} to {day(x.until, page.today)}
          <Text fontSize="sm">{x.changed ? "changed" : "as before"}; flush first</Text>
        </Box>
      ))}
    </Flex>
  )
}
