import { Box, Flex, Grid, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { figure } from "../../../ui/format"
import { Card } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import type { Answer } from "../draft"
import { Beside } from "./Beside"
import { Reading } from "./Reading"

type Props = {
  answer?: Answer
  water?: Schemas["MixWater"]
  ceiling?: number | null
  onAdd: (productId: number, dose: string) => void
  onMost: (nitrogen: string) => void
}

/** Ions in and out as bars, the rail with ceiling and prediction, and what else the can will do. */
export function WhatComesOut({ answer, water, ceiling, onAdd, onMost }: Props) {
  if (!answer) {
    return (
      <Card title="What comes out">
        <Quantity label="EC in the can" kind="ec" value={water?.ec25_uS_cm} none="not measured" />
      </Card>
    )
  }
  return (
    <Flex direction="column" gap="4">
      <Reading answer={answer} ceiling={ceiling} onMost={onMost} />
      <Bars elements={answer.dose.result.elements} working={answer.dose.result.elements_working} />
      <Beside answer={answer} onAdd={onAdd} />
    </Flex>
  )
}

function Bars({
  elements,
  working,
}: {
  elements: Schemas["ElementLevel"][]
  working: Schemas["Working"]
}) {
  const main = elements.slice(0, 8)
  const most = Math.max(...main.map((e) => e.in_can_mg_L), 1)
  const unknown = main.some((e) => e.from_water_mg_L === null)
  const traces = elements.slice(8)
  return (
    <Card title="Ions in the can">
      {main.map((e) => (
        <Grid
          key={e.name}
          templateColumns="100px minmax(0,1fr) 46px"
          gap="2"
          alignItems="center"
          py="0.5"
        >
          <Text>{e.name}</Text>
          <Flex
            h="9px"
            bg="bg.subtle"
            borderRadius="sm"
            overflow="hidden"
            title={[
              `from the feed ${figure(e.from_feed_mg_L, 2)} mg/L`,
              `from the water ${e.from_water_mg_L === null ? "not known" : `${figure(e.from_water_mg_L, 2)} mg/L`}`,
            ].join(", ")}
          >
            <Box
              h="9px"
              borderWidth="1px"
              borderColor="ink.solid"
              style={{
                width: `${((e.from_water_mg_L ?? 0) / most) * 100}%`,
                display: e.from_water_mg_L ? undefined : "none",
              }}
            />
            <Box h="9px" bg="ink.solid" style={{ width: `${(e.from_feed_mg_L / most) * 100}%` }} />
          </Flex>
          <Text textAlign="right">
            <Quantity
              label={e.name}
              bare
              unit="mg/L"
              value={e.in_can_mg_L}
              working={{ kind: "here", working }}
            />
          </Text>
        </Grid>
      ))}
      {traces.length > 0 && (
        <Text fontSize="sm" mt="1">
          {traces.map((t) => `${t.name} ${figure(t.from_feed_mg_L, 2)}`).join(", ")}
        </Text>
      )}
      <Text fontSize="sm" color="fg.muted" mt="1.5">
        mg/L
        {unknown
          ? ", from the feed; the water’s own ions are not known"
          : ", water (outlined) and feed together"}
        . Urea adds no EC.
      </Text>
    </Card>
  )
}
