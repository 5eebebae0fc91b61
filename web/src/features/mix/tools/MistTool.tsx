import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { TextField } from "../../../ui/fields"
import { figure } from "../../../ui/format"
import { Quantity } from "../../../ui/Quantity"
import { useLiveForm } from "../../../ui/useLiveForm"
import { Columns, FieldGrid } from "./Columns"
import type { ToolProps } from "./Panels"

type Values = { stock_g_L: string; target_mg_L: string; final_mL: string }

/** From a strong stock to a thin bottle, in steps the syringe can measure. */
export function MistTool({ page }: ToolProps) {
  const mist = page.vessels.find((v) => v.kind === "mist bottle")
  const {
    form,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_SerialDilution_"]>(
    "mist",
    { stock_g_L: "20", target_mg_L: "100", final_mL: mist ? String(mist.volume_L * 1000) : "500" },
    (v) => answer(client.POST("/api/mix/serial", { body: v })),
    (v) => v.stock_g_L !== "" && v.target_mg_L !== "" && v.final_mL !== "",
  )
  const r = found?.result
  const here = found && { kind: "here" as const, working: found.working }
  return (
    <Columns
      problem={problem}
      asked={
        <>
          <Text mb="2">
            A mist bottle needs less than a scale can weigh: make a stock, then draw it in one or
            two steps.
          </Text>
          <FieldGrid>
            <TextField form={form} name="stock_g_L" label="Stock" unit="g/L" numeric />
            <TextField
              form={form}
              name="target_mg_L"
              label="Wanted in the bottle"
              unit="mg/L product"
              numeric
            />
            <TextField form={form} name="final_mL" label="Bottle" unit="mL" numeric />
          </FieldGrid>
        </>
      }
    >
      {r && (
        <>
          <Box as="ol" pl="5" listStyleType="decimal" fontSize="lg" lineHeight="1.9">
            {r.steps.map((s, i) => (
              <li key={i}>
                Draw <b>{figure(s.draw_mL, 3)} mL</b>, fill up to <b>{figure(s.to_mL, 4)} mL</b>,
                shake: {figure(r.strengths_mg_L[i] ?? 0, 3)} mg/L.
              </li>
            ))}
          </Box>
          <Text>
            Then{" "}
            <Quantity
              label="Strength in the bottle"
              value={r.final_mg_L}
              unit="mg/L of product"
              working={here}
            />
            ,{" "}
            <Quantity
              label="Error of the dilution"
              value={r.error_pct}
              unit="% off (SD)"
              working={here}
            />
            . Label the bottle with contents, strength and date; use it within the week.
          </Text>
        </>
      )}
    </Columns>
  )
}
