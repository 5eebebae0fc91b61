import { Box, Flex, Grid, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { figure } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { Rail } from "../../ui/Rail"

type Props = { dose?: Schemas["Computed_Dose_"]; water?: Schemas["MixWater"]; ceiling?: Schemas["MixPot"] }

/** Ions as bars, the rail with ceiling and prediction. */
export function WhatComesOut({ dose, water, ceiling }: Props) {
  if (!dose) {
    return (
      <Card title="What comes out">
        <Quantity label="EC in the can" kind="ec" value={water?.ec25_uS_cm} />
      </Card>
    )
  }
  const d = dose.result
  const most = Math.max(...d.elements.map((e) => e.from_feed_mg_L + (e.from_water_mg_L ?? 0)), 1)
  const unknownWater = d.elements.some((e) => e.from_water_mg_L === null)
  return (
    <Flex direction="column" gap="4">
      <Card title="What comes out">
        {d.elements.map((e) => {
          const sum = e.from_feed_mg_L + (e.from_water_mg_L ?? 0)
          return (
            <Grid key={e.name} templateColumns="100px minmax(0,1fr) 46px" gap="2" alignItems="center" py="0.5">
              <Text>{e.name}</Text>
              <Box h="9px" bg="bg.subtle" borderRadius="sm"><Box h="9px" bg="ink.solid" borderRadius="sm" style={{ width: `${(sum / most) * 100}%` }} /></Box>
              <Text textAlign="right">{figure(sum, 2)}</Text>
            </Grid>
          )
        })}
        <Text fontSize="sm" color="fg.muted" mt="1.5">mg/L{unknownWater ? ", from the feed; the water’s own ions are not known" : ", water and feed together"}. Urea adds no EC.</Text>
      </Card>
      <Card label="Predicted EC">
        <Text fontSize="xl" fontWeight="semibold"><Quantity label="EC in the can" kind="ec" value={d.ec_total_uS_cm} low={d.ec_low_uS_cm} high={d.ec_high_uS_cm} working={{ kind: "here", working: dose.working }} /></Text>
        <Rail label={`Predicted ${Math.round(d.ec_total_uS_cm)} µS/cm`} value={d.ec_total_uS_cm} low={d.ec_low_uS_cm} high={d.ec_high_uS_cm} ceiling={ceiling?.feed_ceiling_uS_cm} width={330} />
        {d.headroom_uS_cm !== null && (
          <Text color={d.over_ceiling ? "state.stop" : undefined}>
            {d.over_ceiling ? `Over the ceiling by ${Math.round(-d.headroom_uS_cm)} µS/cm. ` : "Room to the ceiling: "}
            {!d.over_ceiling && <Quantity label="Room to the ceiling" kind="ec" value={d.headroom_uS_cm} working={{ kind: "here", working: dose.working }} />}
            {!d.over_ceiling && d.headroom_nitrogen_mg_L !== null && `, or ${figure(Math.round(d.headroom_nitrogen_mg_L))} mg/L N more.`}
          </Text>
        )}
        {dose.working.cautions.map((c) => <Text key={c} fontSize="sm" color="state.caution" mt="1">{c}</Text>)}
      </Card>
    </Flex>
  )
}
