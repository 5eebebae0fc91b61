import { Box, Flex, Text } from "@chakra-ui/react"
import { keepPreviousData, useQuery } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"
import { day } from "../../ui/format"
import { Quantity } from "../../ui/Quantity"

/** What a plan would be before it begins: pairs, the coin's word, looks, and how far it can see. */
export function PlanPreview({ body }: { body: Schemas["TrialIn"] }) {
  const plan = useQuery({
    queryKey: ["trials", "preview", body],
    queryFn: () => answer(client.POST("/api/trials/preview", { body })),
    enabled: body.pot_ids.length > 0,
    retry: false,
    placeholderData: keepPreviousData,
  })
  if (body.pot_ids.length === 0)
    return <Text color="fg.muted">Choose plants: the plan appears here.</Text>
  if (plan.error)
    return (
      <Text role="alert" color="state.caution">
        {plan.error.message}
      </Text>
    )
  if (!plan.data) return null
  const p = plan.data.plan.result
  const name = (id: number) => plan.data.pots.find((x) => x.pot_id === id)?.code ?? String(id)
  return (
    <Box aria-live="polite" borderWidth="1px" borderRadius="md" p="3">
      <Text fontWeight="semibold" color={p.can_answer ? undefined : "state.caution"}>
        {p.sentence}
      </Text>
      <Text>
        Smallest difference that shows:{" "}
        <Quantity
          label="Smallest difference that shows"
          value={p.sees}
          unit={plan.data.unit}
          none="none"
          working={{ kind: "here", working: plan.data.plan.working }}
        />
        . Window {plan.data.window_why}.
      </Text>
      <Flex gap="2" wrap="wrap" mt="2">
        {p.pairs.map((x) => (
          <Box key={x.first} borderWidth="1px" borderRadius="md" px="2.5" py="1">
            <b>{name(x.changed)}</b> changed, {name(x.changed === x.first ? x.second : x.first)} not
          </Box>
        ))}
        {p.phases.map((x) => (
          <Box key={x.since} borderWidth="1px" borderRadius="md" px="2.5" py="1">
            {day(x.since)} to {day(x.until)}: {x.changed ? "changed" : "as before"}
          </Box>
        ))}
      </Flex>
      {p.pairs.length === 0 && p.phases.length === 0 && (
        <Text mt="1">
          Changed: {p.changed.map(name).join(", ")}. Not: {p.unchanged.map(name).join(", ")}.
        </Text>
      )}
      {p.left_out.map((x) => (
        <Text key={x.id} color="state.caution">
          {name(x.id)}: {x.why}
        </Text>
      ))}
      <Text fontSize="sm" color="fg.muted" mt="1">
        Looks{" "}
        {p.looks
          .slice(0, 4)
          .map((x) => day(x))
          .join(", ")}
        {p.looks.length > 4 ? " and each fortnight" : ""} to {day(p.ends_on)}. {p.leave_out_rule}
      </Text>
    </Box>
  )
}
