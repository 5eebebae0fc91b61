import { Button, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { Link } from "react-router"
import { answer, client, type Schemas } from "../../api/client"
import { Card, Loaded } from "../../ui/Page"
import { Lane } from "../plans/Lane"

const planQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "one", id, "plan"],
    queryFn: () =>
      answer(
        client.GET("/api/pots/{pot_id}/plan", { params: { path: { pot_id: id } } }),
      ) as Promise<Schemas["PlanOfPot"]>,
  })

/** What feeds the pot: its plan in a sentence, the coming weeks, and what other schools would give. */
export function PlanCard({ page }: { page: Schemas["PotPage"] }) {
  const id = page.row.id
  return (
    <Card title="Feeding plan">
      <Loaded query={useQuery(planQuery(id))}>
        {(plan) => (
          <>
            <Text>
              <b>{plan.sentence}</b>{" "}
              <Text as="span" color="fg.muted">
                {plan.by === "no rule" ? "Its own rhythm; no plan rules it." : `By ${plan.by}.`}
              </Text>
            </Text>
            <Lane today={page.today} ahead={plan.ahead} name="Next twelve weeks" line="" />
            {plan.beside.map((b) => (
              <Lane key={b.name} today={page.today} ahead={b} name={b.name} line="would give" />
            ))}
            <Button asChild size="sm" variant="outline" minH="44px" mt="2">
              <Link to={`/plans/edit?scope=plant&key=${id}`}>Edit</Link>
            </Button>
          </>
        )}
      </Loaded>
    </Card>
  )
}
