import { Box, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { amount, figure, numberIn } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"
import { Rail } from "../../../ui/Rail"

/** Litres of each, and what the blend will read. */
export function BlendAnswer({
  blend,
  here,
}: {
  blend: Schemas["Blend"]
  here: { kind: "here"; working: Schemas["Working"] } | undefined
}) {
  return (
    <>
      {blend.parts.map((p) => (
        <Flex key={p.name} justify="space-between" py="1.5" borderTopWidth="1px" align="baseline">
          <Text>{p.name}</Text>
          <Text fontSize="xl" fontWeight="semibold">
            <Quantity
              label={`${p.name} in the blend`}
              kind="volume"
              value={p.litres}
              working={here}
            />{" "}
            <Text as="span" fontSize="sm" fontWeight="normal" color="fg.muted">
              {figure(100 * p.share, 3)} %
            </Text>
          </Text>
        </Flex>
      ))}
      <Text mt="3">
        Expect{" "}
        <b>
          <Quantity label="EC of the blend" kind="ec" value={blend.ec25_uS_cm} working={here} />
        </b>
        ; a straight line would say {numberIn(blend.straight_line_ec_uS_cm, "µS/cm")}.
      </Text>
      <Box my="2">
        <Rail
          value={blend.ec25_uS_cm}
          label={`The blend at ${amount(blend.ec25_uS_cm, "µS/cm")} on the rail`}
        />
      </Box>
      <Text>
        Alkalinity{" "}
        <Quantity
          label="Alkalinity of the blend"
          unit="mg/L CaCO3"
          value={blend.alkalinity_mg_L_CaCO3}
          working={here}
          none="not known"
        />
        , hardness{" "}
        <Quantity
          label="Hardness of the blend"
          unit="mg/L CaCO3"
          value={blend.hardness_mg_L_CaCO3}
          working={here}
          none="not known"
        />
        .
      </Text>
      <Text>
        Cost{" "}
        <Quantity
          label="Cost of the blend"
          value={blend.cost}
          unit="for this volume"
          working={here}
          none="not known: a price is missing"
        />
        .
      </Text>
    </>
  )
}
