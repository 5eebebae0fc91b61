import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { amount, day, figure, numberIn } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { usePress } from "../../ui/usePress"
import { calibrationQuery, readingsQuery } from "./queries"
import { LearntBars } from "./LearntBars"

/** What this pot's readings taught, and each reading beside what was expected of it. */
export function LearntCard({ potId, today }: { potId: number; today: string }) {
  const found = useQuery(calibrationQuery(potId))
  const rows = useQuery(readingsQuery(potId)).data?.readings ?? []
  const toggle = usePress<Schemas["ComesOut"], Schemas["ComesOut"]>((r, key) =>
    answer(
      client.POST("/api/pots/{pot_id}/readings/{reading_id}/left-out", {
        params: { ...keyed(key), path: { pot_id: potId, reading_id: r.id } },
        body: { left_out: !r.left_out },
      }),
    ),
  )
  const told = found.data
  if (found.isError) return <Text role="alert">{found.error.message}</Text>
  if (!told) return null
  const c = told.result
  const expected = (r: Schemas["ComesOut"]) =>
    c.readings.find((x) => x.on === r.on && x.measured_uS_cm === r.ec_uS_cm)
  return (
    <Card title="What its readings taught">
      <Text fontWeight="semibold">{c.sentence}</Text>
      <Text fontSize="sm" color="fg.muted" mb="2">
        Reading today{" "}
        <Quantity
          label="Reading as learnt"
          kind="ec"
          value={c.reading_uS_cm}
          low={c.low_uS_cm}
          high={c.high_uS_cm}
          working={{ kind: "here", working: told.working }}
        />
        ; by the medium alone {numberIn(c.default_reading_uS_cm, "µS/cm")} (
        {numberIn(c.default_low_uS_cm, "µS/cm")} to {numberIn(c.default_high_uS_cm, "µS/cm")}).
        {c.off_learnt !== null &&
          c.off_by_defaults !== null &&
          ` Predictions were off by ${figure(100 * c.off_learnt, 2)} %, by the medium alone ${figure(100 * c.off_by_defaults, 2)} %.`}
      </Text>
      <LearntBars values={c.values} />
      {rows.toReversed().map((r) => {
        const e = expected(r)
        return (
          <Box key={r.id} borderTopWidth="1px" py="2">
            <Flex justify="space-between" gap="3" align="center" wrap="wrap">
              <Text textDecoration={r.left_out ? "line-through" : undefined}>
                {day(r.on, today)}:{" "}
                <b>{r.ec_uS_cm === null ? seen(r) : `${amount(r.ec_uS_cm, "µS/cm")}`}</b>
                {r.pH !== null && `, pH ${figure(r.pH, 2)}`}, {r.method}
                {e && `; expected ${numberIn(e.expected_uS_cm, "µS/cm")}`}
              </Text>
              {r.ec_uS_cm !== null && (
                <Button size="sm" minH="44px" variant="outline" onClick={() => toggle.mutate(r)}>
                  {r.left_out ? "Include" : "Leave out"}
                </Button>
              )}
            </Flex>
            {e && !e.fits && (
              <Text fontSize="sm" color="state.caution">
                {e.sentence}
              </Text>
            )}
          </Box>
        )
      })}
    </Card>
  )
}

const seen = (r: Schemas["ComesOut"]) =>
  [r.crust && `crust ${r.crust}`, r.colour && `runoff ${r.colour}`].filter(Boolean).join(", ")
