import { Box, NativeSelect, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useId, useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { waterQuery } from "../../api/queries"
import { figure } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"

/** How many litres in how many rounds bring this pot down, with which water. */
export function FlushCard({
  potId,
  code,
  idealHigh,
}: {
  potId: number
  code: string
  idealHigh: number
}) {
  const waters = useQuery(waterQuery).data?.waters ?? []
  const [chosen, setChosen] = useState<number | null>(null)
  const id = useId()
  const water = waters.find((w) => w.id === chosen) ?? waters[0]
  const plan = useQuery({
    queryKey: ["pots", "flush", potId, water?.id],
    queryFn: () =>
      answer(
        client.POST("/api/pots/{pot_id}/flush-plan", {
          params: { path: { pot_id: potId } },
          body: { water_id: water?.id ?? 0 },
        }),
      ),
    enabled: water !== undefined,
  })
  return (
    <Card title={`Flush ${code} down to ${figure(idealHigh, 6)} µS/cm`}>
      {waters.length > 1 && (
        <Box mb="2">
          <Text asChild fontSize="sm" color="fg.muted">
            <label htmlFor={id}>With</label>
          </Text>
          <NativeSelect.Root>
            <NativeSelect.Field
              id={id}
              value={String(water?.id ?? "")}
              onChange={(e) => setChosen(Number(e.target.value))}
              minH="44px"
            >
              {waters.map((w) => (
                <option key={w.id} value={w.id}>
                  {w.name},{" "}
                  {w.ec25_uS_cm === null ? "not measured" : `${Math.round(w.ec25_uS_cm)} µS/cm`}
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
        </Box>
      )}
      {plan.isError && <Text role="alert">{plan.error.message}</Text>}
      {plan.data && <Plan plan={plan.data} />}
    </Card>
  )
}

function Plan({ plan }: { plan: Schemas["Computed_FlushPlan_"] }) {
  const p = plan.result
  return (
    <>
      <Text fontWeight="semibold">{p.sentence}</Text>
      {p.rounds > 0 && (
        <>
          <Text>
            In all{" "}
            <b>
              <Quantity
                label="Water for the flush"
                kind="volume"
                value={p.total_L}
                working={{ kind: "here", working: plan.working }}
              />
            </b>
            {p.status === "same day" && p.rounds > 1
              ? `, soak ${Math.round(p.pause_min)} minutes between rounds`
              : ""}
            .
          </Text>
          {p.stop_runoff_uS_cm !== null && (
            <Text>
              Stop when the runoff, after a pause, reads{" "}
              <Quantity
                label="Runoff to stop at"
                kind="ec"
                value={p.stop_runoff_uS_cm}
                working={{ kind: "here", working: plan.working }}
              />
              , not before: runoff reads lower than the root zone.
            </Text>
          )}
          {p.end_reading_uS_cm !== null && (
            <Text color="fg.muted">
              Then a pour-through should read about {Math.round(p.end_reading_uS_cm)}.
            </Text>
          )}
        </>
      )}
      {plan.working.cautions.map((c) => (
        <Text key={c} fontSize="sm" color="fg.muted" mt="1">
          {c}
        </Text>
      ))}
    </>
  )
}
