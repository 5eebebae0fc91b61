import { Box, Flex, Grid, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { saltColour } from "../../app/ramp"
import { numberIn } from "../../ui/format"
import { AnyPlant } from "./AnyPlant"
import { Plants } from "./PlantVerdicts"

type Props = { page: Schemas["WaterPage"]; chosen?: number; onChoose: (id: number) => void }

/** Two lines for each water: amount and kind; the chosen water group by group, with what to do. */
export function VerdictMatrix({ page, chosen, onChoose }: Props) {
  const verdicts = page.verdicts.filter((v) => v.water_id === chosen)
  const water = page.waters.find((w) => w.id === chosen)
  return (
    <>
      {page.waters.map((w) => (
        <Box
          key={w.id}
          asChild
          w="100%"
          textAlign="left"
          py="2"
          px="2"
          mx="-2"
          borderTopWidth="1px"
          bg={w.id === chosen ? "bg.subtle" : undefined}
          cursor="pointer"
        >
          <button type="button" aria-pressed={w.id === chosen} onClick={() => onChoose(w.id)}>
            <Grid
              gap={{ base: "1", md: "3" }}
              templateColumns={{ base: "minmax(0,1fr)", md: "150px 170px minmax(0,1fr) 110px" }}
              alignItems="baseline"
            >
              <Flex align="center" gap="2" fontWeight="semibold">
                <Box
                  boxSize="12px"
                  flex="none"
                  borderWidth="1px"
                  borderColor="border.strong"
                  style={{ background: w.ec25_uS_cm === null ? "none" : saltColour(w.ec25_uS_cm) }}
                />
                {w.name}
              </Flex>
              <Text>
                {w.ec25_uS_cm !== null && `${numberIn(w.ec25_uS_cm, "µS/cm")} · `}
                {w.amounts}
              </Text>
              <Text color="fg.muted">{w.kind_line}</Text>
              <Text color="fg.muted">
                {w.price_per_L === null ? "price not known" : `${w.price_per_L} per litre`}
              </Text>
            </Grid>
          </button>
        </Box>
      ))}
      {water && verdicts.length > 0 && (
        <Box mt="3">
          <Text fontWeight="semibold" mb="1">
            {water.name}, plant by plant
          </Text>
          <Plants page={page} water={water} verdicts={verdicts} />
          <AnyPlant page={page} water={water} />
        </Box>
      )}
    </>
  )
}
