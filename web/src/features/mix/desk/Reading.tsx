import { Box, Text } from "@chakra-ui/react"
import { amount, figure, unitName, inReader } from "../../../ui/format"
import { Card } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import { Rail } from "../../../ui/Rail"
import type { Answer } from "../draft"

export function Reading({
  answer,
  ceiling,
  onMost,
}: {
  answer: Answer
  ceiling?: number | null
  onMost: (nitrogen: string) => void
}) {
  const d = answer.dose.result
  const here = { kind: "here" as const, working: answer.dose.working }
  const room = answer.headroom
  return (
    <Card title="What comes out" label="Predicted EC">
      <Text fontSize="xl" fontWeight="semibold">
        <Quantity
          label="EC in the can"
          kind="ec"
          value={d.ec_total_uS_cm}
          low={d.ec_low_uS_cm}
          high={d.ec_high_uS_cm}
          working={here}
        />
      </Text>
      <Rail
        label={`Predicted ${amount(d.ec_total_uS_cm, "µS/cm")}`}
        value={d.ec_total_uS_cm}
        low={d.ec_low_uS_cm}
        high={d.ec_high_uS_cm}
        ceiling={ceiling}
        width={330}
      />
      {d.headroom_uS_cm !== null && (
        <Text color={d.over_ceiling ? "state.stop" : undefined}>
          {d.over_ceiling
            ? `Over the ceiling by ${amount(-d.headroom_uS_cm, "µS/cm")}. `
            : "Room to the ceiling: "}
          {!d.over_ceiling && (
            <Quantity
              label="Room to the ceiling"
              kind="ec"
              value={d.headroom_uS_cm}
              working={here}
            />
          )}
          {!d.over_ceiling &&
            d.headroom_nitrogen_mg_L !== null &&
            `, or ${figure(Math.round(d.headroom_nitrogen_mg_L))} mg/L N more.`}
        </Text>
      )}
      {room && (
        <Text fontSize="sm" mt="1">
          {d.over_ceiling ? (
            <Box asChild textDecoration="underline" cursor="pointer" minH="32px">
              <button type="button" onClick={() => onMost(figure(room.result.nitrogen_mg_L, 3))}>
                Keep to the ceiling
              </button>
            </Box>
          ) : null}{" "}
          At most{" "}
          <Quantity
            label="Largest nitrogen"
            value={room.result.nitrogen_mg_L}
            unit="mg/L N"
            working={{ kind: "here", working: room.working }}
          />
          {room.result.next_ceiling_uS_cm !== null
            ? `; without ${room.result.strictest} up to ${amount(room.result.next_ceiling_uS_cm, "µS/cm")}.`
            : "."}
        </Text>
      )}
      {answer.headroom_refusal && (
        <Text color="state.stop" mt="1">
          {answer.headroom_refusal}
        </Text>
      )}
      {answer.slope && (
        <Text fontSize="sm" mt="1">
          By your own {answer.slope.result.batches} batches:{" "}
          <Quantity
            label="Own slope"
            value={inReader(answer.slope.result.slope_uS_per_g_L, "µS/cm")}
            unit={`${unitName("µS/cm")} for each g/L`}
            working={{ kind: "here", working: answer.slope.working }}
          />
          , {figure(100 * answer.slope.result.factor, 3)} % of the label’s ions.
        </Text>
      )}
      {answer.dose.working.cautions.map((c) => (
        <Text key={c} fontSize="sm" color="state.caution" mt="1">
          {c}
        </Text>
      ))}
    </Card>
  )
}
