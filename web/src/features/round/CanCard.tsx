import { Box, Flex, Grid, Text } from "@chakra-ui/react"
import { Link } from "react-router"
import type { Schemas } from "../../api/client"
import { CanDrawing } from "../../ui/CanDrawing"
import { amount, pourVolume, numberIn } from "../../ui/format"
import { MoreRows } from "../../ui/MoreRows"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { useRowsHere } from "../../ui/useRowsHere"

const AT_ONCE = 40

/** One can: what to mix, how much in all, which pots get it, and why. */
export function CanCard({ can, missing = 0 }: { can: Schemas["Can"]; missing?: number }) {
  const { shown, left, query } = useRowsHere(can.pots, AT_ONCE, missing)
  const fed = can.job === "feed" || can.job === "leaf spray"
  return (
    <Card label={`Can ${can.letter}`}>
      <Flex gap="4">
        <CanDrawing ec={can.ec_uS_cm} share={can.volume_L / 4} letter={can.letter} />
        <Box flex="1" minW="0">
          <Flex justify="space-between" gap="3" wrap="wrap">
            <Text fontWeight="semibold">
              Can {can.letter} · {can.title}
            </Text>
            <Text fontWeight="semibold">
              <Quantity
                label={`EC of can ${can.letter}`}
                kind="ec"
                value={can.ec_uS_cm}
                low={can.water_measured ? undefined : can.ec_low_uS_cm}
                high={can.water_measured ? undefined : can.ec_high_uS_cm}
                working={can.working ? { kind: "here", working: can.working } : undefined}
              />
            </Text>
          </Flex>
          {fed ? (
            <Text>
              <b>
                {can.water_name} {amount(can.volume_L, "L")}
              </b>{" "}
              + {can.product} <b>{can.weighing}</b>
              <Text as="span" color="fg.muted">
                {" "}
                · {Math.round(can.nitrogen_mg_L)} mg/L N · measure it: expect{" "}
                {numberIn(can.ec_low_uS_cm, "µS/cm")} to {numberIn(can.ec_high_uS_cm, "µS/cm")}
              </Text>
            </Text>
          ) : can.job === "flush" ? (
            <Text>
              {can.weighing} Use {can.water_name}.
            </Text>
          ) : null}
          <Text fontSize="sm" color="fg.muted">
            {can.why}
            {can.water_measured
              ? ""
              : ` ${can.water_name} was not measured: what such a water usually reads is taken.`}
          </Text>
          <Grid
            as="ul"
            listStyleType="none"
            templateColumns={{ base: "minmax(0,1fr)", sm: "repeat(2, minmax(0,1fr))" }}
            columnGap="5"
            mt="2"
          >
            {shown.map((p) => (
              <Flex
                as="li"
                key={p.pot_id}
                justify="space-between"
                gap="3"
                py="1.5"
                borderTopWidth="1px"
              >
                <Text minW="0">
                  <Link to={`/pots/${p.pot_id}`}>
                    {p.code} {p.name}
                  </Link>
                  {p.isolated && (
                    <Text as="span" color="state.caution">
                      {" "}
                      · isolated
                    </Text>
                  )}
                  {(p.why || p.then) && can.job !== "flush" && (
                    <Text as="span" display="block" fontSize="sm" color="fg.muted">
                      {[p.why, p.then].filter(Boolean).join(" ")}
                    </Text>
                  )}
                </Text>
                <Text color="fg.muted" whiteSpace="nowrap">
                  {pourVolume(p.amount_mL)}
                  {p.route === "tray" ? " tray" : ""}
                </Text>
              </Flex>
            ))}
          </Grid>
          <MoreRows auto left={left} query={query} />
        </Box>
      </Flex>
    </Card>
  )
}
