import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query"
import { useEffect, useRef } from "react"
import type { Schemas } from "../api/client"
import { answer, client } from "../api/client"
import type { ApiProblem } from "../api/problem"
import { penQuery } from "../api/waterQueries"
import { amount, figure } from "./format"
import { PenTrace } from "./PenTrace"

type Pen = Schemas["PenOut"]
export type PenValue = {
  value: number
  corrected: number
  temperature: number | null
  trace: Schemas["TraceIn"][]
  meterId: number | null
}

/** "Read the pen": waits until it has settled, fills the field, keeps the trace. */
export function PenReader({
  into,
  onValue,
}: {
  into: { water_id: number } | { pot_id: number }
  onValue: (v: PenValue) => void
}) {
  const queries = useQueryClient()
  const here = useRef(true)
  useEffect(() => {
    here.current = true
    return () => {
      here.current = false
    }
  }, [])
  const p = useQuery(penQuery).data
  const show = (state: Pen) => queries.setQueryData(penQuery.queryKey, state)
  const plugging = useRef<Promise<unknown>>(null) // a reading begun at once would be one in the air
  const read = useMutation<Pen, ApiProblem>({
    mutationFn: async () => {
      await plugging.current
      const now = queries.getQueryData<Pen>(penQuery.queryKey)
      if (now?.simulated && now.plugged)
        await answer(
          client.PUT("/api/pen/simulated", {
            body: { water_id: null, pot_id: null, plugged: true, ...into },
          }),
        )
      let state = await answer(client.POST("/api/pen/start"))
      while (here.current && !state.settled && !state.problem) {
        await new Promise((resume) => setTimeout(resume, 400))
        state = await answer(client.GET("/api/pen"))
        show(state)
      }
      return state
    },
    onSuccess: (state) => {
      show(state)
      if (here.current && state.settled && state.value_uS_cm !== null)
        onValue({
          value: state.value_uS_cm,
          corrected: state.corrected_uS_cm ?? state.value_uS_cm,
          temperature: state.temperature_C,
          trace: state.trace,
          meterId: state.meter_id,
        })
    },
  })
  const plug = useMutation<Pen, ApiProblem, boolean>({
    mutationFn: async (plugged) => {
      const body = { water_id: null, pot_id: null, plugged }
      const done = answer(client.PUT("/api/pen/simulated", { body }))
      plugging.current = done.then(show, () => undefined)
      await plugging.current
      return done
    },
  })
  if (!p?.present) return null
  return (
    <Box
      borderWidth="1px"
      borderRadius="md"
      p="3"
      role="group"
      aria-label="Pen"
      style={{ flex: "1 1 100%", maxWidth: "100%" }}
    >
      <Flex gap="3" wrap="wrap" align="center">
        <Button
          type="button"
          variant="outline"
          minH="44px"
          loading={read.isPending}
          loadingText="Waiting for it to settle"
          onClick={() => read.mutate()}
        >
          Read the pen
        </Button>
        {p.simulated && (
          <Button type="button" variant="outline" size="sm" onClick={() => plug.mutate(!p.plugged)}>
            {p.plugged ? "Unplug the simulated pen" : "Plug it in"}
          </Button>
        )}
        {p.reading && p.trace.length > 1 && <PenTrace samples={p.trace} />}
        <Text fontSize="sm" aria-live="polite" flex="1 1 160px">
          {read.isError ? (
            <Box as="span" role="alert" color="state.stop">
              {read.error.message}
            </Box>
          ) : p.problem ? (
            <Box as="span" role="alert" color="state.stop">
              {p.problem}
            </Box>
          ) : read.isPending ? (
            `Now ${amount(p.trace.at(-1)?.ec_uS_cm ?? 0, "µS/cm")}`
          ) : p.settled ? (
            settledAt(p.value_uS_cm, p.corrected_uS_cm)
          ) : p.plugged ? (
            ""
          ) : (
            "The pen is not plugged in."
          )}
        </Text>
      </Flex>
      {p.reading && (
        <Text fontSize="xs" color="fg.muted" mt="1">
          {p.criterion}
        </Text>
      )}
    </Box>
  )
}

function settledAt(shown: number | null, corrected: number | null) {
  const differs = corrected !== null && corrected !== shown
  const after = differs ? `, ${figure(corrected, 4)} after its checks` : ""
  return `Settled at ${amount(shown ?? 0, "µS/cm")}${after}.`
}
