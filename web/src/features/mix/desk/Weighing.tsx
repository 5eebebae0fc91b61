import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { amount, figure, amountOf } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"
import type { Answer } from "../draft"

export function Amounts({ answer }: { answer: Answer }) {
  const d = answer.dose.result
  const here = { kind: "here" as const, working: answer.dose.working }
  return (
    <Box mt="2">
      <Text fontSize="2xl" fontWeight="semibold" lineHeight="1.2">
        <Quantity
          label="Amount to weigh"
          value={d.amount_mL ?? d.amount_g}
          kind={d.amount_mL === null ? "mass" : "plain"}
          unit={d.amount_mL === null ? undefined : "mL"}
          working={here}
        />
      </Text>
      <Text color="fg.muted">
        {d.parts[0]?.name}, {amountOf(d.dose_mL_L ?? d.dose_g_L, d.dose_mL_L === null ? "g" : "mL")}{" "}
        for {amount(1, "L")}
      </Text>
    </Box>
  )
}

const how = (working: Schemas["Working"] | null) =>
  working ? { kind: "here" as const, working } : undefined

export function Weighing({ d, measures }: { d: Schemas["Dose"]; measures: string[] }) {
  const off = d.parts.filter((p) => !p.weighable)
  return (
    <Box mt="2">
      <Text>
        Your scale: <b>{amountOf(d.rounded_amount, d.rounded_unit)}</b>,{" "}
        {figure(d.rounding_error_pct, 2)} % off{measures.length ? `; ${measures.join("; ")}` : ""}.
      </Text>
      {off.length > 0 && (
        <Text color="state.caution">
          Too little for it to be sure of: {off.map((p) => p.name).join(", ")}.
        </Text>
      )}
      {d.stock && (
        <Box mt="1">
          <Text fontWeight="semibold">Go through a stock</Text>
          <Text>
            Weigh{" "}
            <Quantity
              label="Weigh into the bottle"
              kind="mass"
              value={d.stock.weigh_g}
              working={how(d.stock_working)}
            />{" "}
            into {d.stock.bottle_mL} mL of {d.stock.filled_with} (
            {figure(d.stock.concentration_g_L)} g/L), draw{" "}
            <Quantity
              label="Draw of the stock"
              value={d.stock.draw_mL}
              unit="mL"
              working={how(d.stock_working)}
            />{" "}
            for this can: {figure(d.stock.error_pct, 2)} % (SD) off. One bottle makes{" "}
            {amount(d.stock.lasts_L, "L")} and keeps {d.stock.keeps_weeks} weeks.
          </Text>
        </Box>
      )}
      {d.by_steps && (
        <Box mt="1">
          <Text fontWeight="semibold">Go through a stock, in steps</Text>
          <Text>
            Weigh {amount(d.by_steps.mass_g, "g")} into {d.by_steps.bottle_mL} mL (
            {figure(d.by_steps.concentration_g_L)} g/L). {d.by_steps.dilution.sentence}{" "}
            <Quantity
              label="Error through the stock"
              value={d.by_steps.error_pct}
              unit="% (SD) off"
              working={how(d.by_steps.working)}
            />
            .
          </Text>
        </Box>
      )}
      {d.stock_refusal && !d.by_steps && <Text>{d.stock_refusal}</Text>}
    </Box>
  )
}
