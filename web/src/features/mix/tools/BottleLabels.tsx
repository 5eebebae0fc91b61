import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { bottlesQuery } from "../../../api/queries"
import { amount, day, figure } from "../../../ui/format"
import { Loaded } from "../../../ui/Page"

/** Labels to cut out: contents, strength, date, how to use, and the hazard line. */
export function BottleLabels() {
  return (
    <Loaded query={useQuery(bottlesQuery)}>
      {(bottles) => (
        <Box mt="3">
          {bottles.length === 0 ? (
            <Text color="fg.muted">No bottle yet. Make a stock, then save its label here.</Text>
          ) : (
            <Button
              data-screen-only
              variant="outline"
              minH="44px"
              mb="3"
              onClick={() => window.print()}
            >
              Print the labels
            </Button>
          )}
          <Flex wrap="wrap" gap="3">
            {bottles.map((b) => (
              <Box
                key={b.id}
                as="article"
                aria-label={`Label of ${b.name}${b.letter ? `, bottle ${b.letter}` : ""}`}
                borderWidth="2px"
                borderColor="fg"
                borderRadius="md"
                p="3"
                w="290px"
                css={{ breakInside: "avoid" }}
              >
                <Text fontSize="lg" fontWeight="bold">
                  Stock {b.letter}: {b.name}
                </Text>
                {b.contents.map((c) => (
                  <Text key={String(c.name)}>
                    {String(c.name)}: {figure(Number(c.concentration_g_L), 3)} g/L (
                    {amount(Number(c.weigh_g ?? c.mass_g), "g")} in {figure(b.volume_mL, 5)} mL)
                  </Text>
                ))}
                <Text>{b.dilution}</Text>
                <Text>
                  Made {day(b.made_on)} {b.made_on.slice(0, 4)}
                  {b.use_by ? `, use by ${day(b.use_by)} ${b.use_by.slice(0, 4)}` : ""}
                </Text>
                <Text fontWeight="semibold" mt="1">
                  {b.hazard}
                </Text>
              </Box>
            ))}
          </Flex>
        </Box>
      )}
    </Loaded>
  )
}
