import { Box, Button, Text } from "@chakra-ui/react"
import { figure, amountOf } from "../../../ui/format"
import { Facts } from "../../../ui/Facts"
import { Card } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import type { Answer } from "../draft"

/** What else the can will do: calcium, the drift of the pH, cost and how long the pack lasts. */
export function Beside({
  answer,
  onAdd,
}: {
  answer: Answer
  onAdd: (productId: number, dose: string) => void
}) {
  const { tendency, cost, calcium, clear } = answer
  const c = cost.result
  const t = tendency.result
  const here = (working: typeof tendency.working) => ({ kind: "here" as const, working })
  return (
    <Card label="Beside the reading">
      {calcium?.result.thin && answer.supplement_id !== null && (
        <Box mb="3">
          <Text mb="1.5">
            <b>Calcium is thin.</b> {calcium.result.sentence}{" "}
            <Quantity
              label="Supplement"
              value={calcium.result.dose_mL_L ?? calcium.result.dose_g_L}
              unit={calcium.result.dose_mL_L === null ? "g/L" : "mL/L"}
              working={here(calcium.working)}
            />
          </Text>
          <Button
            size="sm"
            variant="outline"
            minH="44px"
            onClick={() => onAdd(answer.supplement_id ?? 0, figure(calcium.result.dose_g_L, 3))}
          >
            Add it to the can
          </Button>
        </Box>
      )}
      <Text fontWeight="semibold">{t.sentence}</Text>
      <Text fontSize="sm" color="fg.muted">
        A tendency, confidence {t.confidence}; not a pH.{" "}
        {t.ammonium_share !== null
          ? `${figure(100 * t.ammonium_share, 2)} % of the nitrogen is ammonium or urea.`
          : ""}
      </Text>
      {tendency.working.cautions.map((x) => (
        <Text key={x} fontSize="sm" color="state.caution">
          {x}
        </Text>
      ))}
      <Facts
        rows={[
          [
            "Left over, water against feed",
            <Quantity
              key="n"
              label="Net alkalinity"
              value={t.net_mg_L}
              low={t.low_mg_L}
              high={t.high_mg_L}
              unit="mg/L CaCO3"
              working={here(tendency.working)}
              none="alkalinity not known"
            />,
          ],
          [
            "Nearest to clouding",
            <Quantity
              key="m"
              label="Saturation"
              value={worst(answer)}
              unit="(0: just full)"
              working={here(clear.working)}
              none="far from it"
            />,
          ],
          [
            "Cost of a litre",
            <Quantity
              key="c"
              label="Cost of a litre"
              value={c.cost_per_L}
              unit=""
              working={here(cost.working)}
              none="price not known"
            />,
          ],
          [
            "Cost of a month",
            <Quantity
              key="p"
              label="Cost of a month"
              value={c.cost_per_month}
              unit={`for ${amountOf(c.used_per_month, answer.cost_unit)}`}
              working={here(cost.working)}
              none="price not known"
            />,
          ],
        ]}
      />
      <Text fontSize="sm" mt="1.5">
        {c.sentence}
      </Text>
    </Card>
  )
}

/** The mineral nearest to falling out, as the server ranks it. */
function worst(answer: Answer): number | null {
  const known = answer.clear.result.minerals.flatMap((m) => (m.index === null ? [] : [m.index]))
  return known.length ? Math.max(...known) : null
}
