import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { use } from "react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { listed } from "../../ui/format"
import { NoticeContext } from "../../ui/noticeContext"
import { Card, Loaded, PageHead } from "../../ui/Page"
import { useUndo } from "../../ui/useUndo"
import { plansQuery, startsQuery } from "./queries"
import { planPath } from "./values"

const SCOPES: Record<string, string> = {
  plant: "One plant",
  kind: "A kind",
  group: "A group of kinds",
  place: "A place",
  all: "All",
}

/** Feeding plans as sentences, the nearest first; a nearer one rules its pots and the wider ones wait. */
export function Plans() {
  return (
    <>
      <PageHead
        title="Feeding plans"
        line="The nearest plan rules a pot: its own, then its kind's, its group's, its place's, then the one for all."
      >
        <Button asChild data-new minH="44px">
          <Link to={planPath("all")}>Add</Link>
        </Button>
      </PageHead>
      <Loaded query={useQuery(plansQuery)}>
        {(plans) =>
          plans.length === 0 ? (
            <Card maxW="720px" mb="4">
              <Text>
                No plan yet: every pot keeps its own rhythm, as strong as its kind likes. Start from
                one below, or from a blank one.
              </Text>
            </Card>
          ) : (
            <Flex direction="column" gap="3" mb="5">
              {plans.map((p) => (
                <Kept key={p.id} plan={p} />
              ))}
            </Flex>
          )
        }
      </Loaded>
      <Starts />
    </>
  )
}

function Kept({ plan }: { plan: Schemas["PlanOut"] }) {
  const undo = useUndo()
  const show = use(NoticeContext)
  const remove = () => {
    undo("plan", plan.id)
    show({ text: "The plan is deleted.", undo: () => undo("plan", plan.id, true) })
  }
  const ruled = plan.codes.length === 0 ? "rules no pot now" : `rules ${listed(plan.codes, 8)}`
  return (
    <Card label={plan.of}>
      <Flex justify="space-between" gap="3" wrap="wrap" align="flex-start">
        <Box flex="1 1 300px" minW="0">
          <Text fontSize="sm" color="fg.muted">
            {SCOPES[plan.scope]} · {ruled}
          </Text>
          <Text fontSize="lg" fontWeight="semibold">
            {plan.sentence}
          </Text>
        </Box>
        <Flex gap="2">
          <Button asChild size="sm" variant="outline" minH="44px">
            <Link to={planPath(plan.scope, plan.key)} aria-label={`Edit the plan for ${plan.of}`}>
              Edit
            </Link>
          </Button>
          <Button
            size="sm"
            variant="outline"
            minH="44px"
            aria-label={`Delete the plan for ${plan.of}`}
            onClick={remove}
          >
            Delete
          </Button>
        </Flex>
      </Flex>
    </Card>
  )
}

function Starts() {
  return (
    <Card title="Start from a school">
      <Loaded query={useQuery(startsQuery)}>
        {(starts) =>
          starts.map((s) => (
            <Flex
              key={s.name}
              gap="3"
              py="2"
              borderTopWidth="1px"
              justify="space-between"
              align="flex-start"
            >
              <Box minW="0">
                <Text fontWeight="semibold">{s.name}</Text>
                <Text>{s.definition}</Text>
                <Text fontSize="sm" color="fg.muted">
                  For: {s.in_favour} Against: {s.against}
                </Text>
              </Box>
              <Button asChild size="sm" variant="outline" minH="44px" flexShrink="0">
                <Link to={planPath("all", "", s.name)} aria-label={`Use ${s.name}`}>
                  Use
                </Link>
              </Button>
            </Flex>
          ))
        }
      </Loaded>
    </Card>
  )
}
