import { Box, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { CanDrawing } from "../../ui/CanDrawing"
import { figure } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import type { Draft } from "./MixDesk"

type Props = { volumeUnit: string; draft: Draft; water?: Schemas["MixWater"]; product?: Schemas["ProductOut"]; dose?: Schemas["Computed_Dose_"]; problem: string | null }

/** What goes in, as steps for the bench. */
export function WhatIn({ volumeUnit, draft, water, product, dose, problem }: Props) {
  const d = dose?.result
  const ec = d?.ec_total_uS_cm ?? water?.ec25_uS_cm ?? 20
  return (
    <Card title="What in">
      {problem && <Text role="alert" color="state.stop" mb="3">{problem}</Text>}
      <Flex gap="5" align="center" wrap="wrap">
        <CanDrawing ec={ec} share={0.75} size={92} />
        <Box flex="1 1 200px">
          {d && dose ? (
            <>
              <Text fontSize="3xl" fontWeight="semibold" lineHeight="1.2">
                <Quantity label="Amount to weigh" value={d.amount_mL ?? d.amount_g} kind={d.amount_mL === null ? "mass" : "plain"} unit={d.amount_mL === null ? undefined : "mL"} working={{ kind: "here", working: dose.working }} />
              </Text>
              <Text>{product?.name} in {draft.volume} {volumeUnit} {water?.name}</Text>
              <Text color="fg.muted">{figure(d.dose_mL_L ?? d.dose_g_L)} {d.dose_mL_L === null ? "g" : "mL"} a litre</Text>
            </>
          ) : (
            <Text>{draft.product_id === null ? `${draft.volume} ${volumeUnit} ${water?.name ?? ""}, nothing added` : "Set the strength."}</Text>
          )}
        </Box>
      </Flex>
      {d && <Weighing d={d} />}
      {d && (
        <Box as="ol" pl="5" listStyleType="decimal" mt="3" borderTopWidth="1px" pt="3" lineHeight="1.9">
          <li>Half fill with {water?.name} at room temperature.</li>
          {d.stock && !d.weighable ? <li>Shake the stock. Draw <b>{figure(d.stock.draw_mL)} mL</b>.</li> : <li>Weigh or measure <b>{figure(d.rounded_amount)} {d.rounded_unit}</b>, dissolve it.</li>}
          <li>Fill to the {draft.volume} {volumeUnit} line and stir. Read: expect <b>{Math.round(d.ec_low_uS_cm)} to {Math.round(d.ec_high_uS_cm)}</b> µS/cm.</li>
        </Box>
      )}
      <Text fontSize="sm" color="fg.muted" mt="3">The label and local rules come first. Keep feed from children, pets and food vessels.</Text>
    </Card>
  )
}

function Weighing({ d }: { d: Schemas["Dose"] }) {
  return (
    <Box mt="3" borderTopWidth="1px" pt="3">
      <Text>
        Your scale: <b>{figure(d.rounded_amount)} {d.rounded_unit}</b>, {figure(d.rounding_error_pct, 2)} % off.
      </Text>
      {!d.weighable && <Text color="state.caution">Too little for it to be sure of.</Text>}
      {d.stock && (
        <Box mt="1">
          <Text fontWeight="semibold">Go through a stock</Text>
          <Text>Weigh {figure(d.stock.mass_g)} g into {d.stock.bottle_mL} mL ({figure(d.stock.concentration_g_L)} g/L), draw {figure(d.stock.draw_mL)} mL for this can: {figure(d.stock.error_pct, 2)} % (SD) off. One bottle makes {figure(d.stock.lasts_L)} L.</Text>
        </Box>
      )}
      {d.stock_refusal && <Text>{d.stock_refusal}</Text>}
    </Box>
  )
}
