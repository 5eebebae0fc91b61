import { Box, Button, Flex, Input, Text } from "@chakra-ui/react"
import { useMutation } from "@tanstack/react-query"
import { useId, useState } from "react"
import { answer, client, type Schemas } from "../../api/client"
import type { ApiProblem } from "../../api/problem"
import { amount, day } from "../../ui/format"
import { Card } from "../../ui/Page"

/** Everything that is due in one round: order, water against what is at hand, who is left out. */
export function FlushRoundCard() {
  const [litres, setLitres] = useState("")
  const [minutes, setMinutes] = useState("")
  const ids = [useId(), useId()]
  const plan = useMutation<Schemas["Computed_FlushRoundPlan_"], ApiProblem>({
    mutationFn: () =>
      answer(
        client.POST("/api/flush/round", {
          body: { pot_ids: [], litres_at_hand: litres, minutes_a_day: minutes },
        }),
      ),
  })
  const r = plan.data?.result
  return (
    <Card title="A flush round">
      <Flex gap="3" wrap="wrap" align="flex-end">
        {(
          [
            ["Litres at hand", litres, setLitres],
            ["Minutes a day", minutes, setMinutes],
          ] as const
        ).map(([label, value, set], i) => (
          <Box key={label} maxW="150px">
            <Text asChild fontSize="sm">
              <label htmlFor={ids[i]}>{label}</label>
            </Text>
            <Input
              id={ids[i]}
              value={value}
              inputMode="decimal"
              minH="44px"
              bg="bg.panel"
              placeholder="enough"
              onChange={(e) => set(e.target.value)}
            />
          </Box>
        ))}
        <Button minH="44px" loading={plan.isPending} onClick={() => plan.mutate()}>
          Plan the round
        </Button>
      </Flex>
      {plan.isError && (
        <Text role="alert" color="state.stop" mt="2">
          {plan.error.message}
        </Text>
      )}
      {r && (
        <Box mt="3" aria-live="polite">
          <Text fontWeight="semibold">{r.sentence}</Text>
          {r.days.map((d) => (
            <Box key={d.on} mt="2">
              <Text>
                {day(d.on)}: {amount(d.litres, "L")}, {Math.round(d.minutes)} min
              </Text>
              {d.stops.map((s, i) => (
                <Text key={s.pot_id} fontSize="sm" color="fg.muted">
                  {i + 1}. {s.code} {s.name}: {s.way}, {amount(s.litres, "L")}
                  {s.bath === 1 ? ", shared bath" : s.bath ? ", own bath" : ""}
                </Text>
              ))}
            </Box>
          ))}
          {r.left_out.map((x) => (
            <Text key={x.pot_id} fontSize="sm" mt="1">
              <b>{x.code}</b> left out. {x.reason} {x.ends}
            </Text>
          ))}
        </Box>
      )}
    </Card>
  )
}
