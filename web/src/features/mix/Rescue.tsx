import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { TextField, TickField } from "../../ui/fields"
import { Quantity } from "../../ui/Quantity"
import { useLiveForm } from "../../ui/useLiveForm"
import { FieldGrid } from "./tools/Columns"

type Values = { reading: string; left: string; wanted: string; vessel: string; stood: string[] }

/** Water or feed that brings a can, or what is left of it, to its strength. */
export function Rescue({ batch, reading }: { batch: Schemas["BatchOut"]; reading: number | null }) {
  const {
    form,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_Rescue_"]>(
    `rescue-${batch.id}-${reading ?? 0}`,
    {
      reading: reading === null ? "" : String(Math.round(reading)),
      left: String(Math.round(batch.left_L * 100) / 100),
      wanted: "",
      vessel: "",
      stood: batch.age_days > 0 ? ["yes"] : [],
    },
    (v) =>
      answer(
        client.POST("/api/batches/{batch_id}/rescue", {
          params: { path: { batch_id: batch.id } },
          body: {
            reading: v.reading,
            left: v.left,
            wanted: v.wanted,
            vessel: v.vessel,
            stood: v.stood.length > 0,
          },
        }),
      ),
    (v) => v.reading !== "" && v.left !== "",
  )
  const r = found?.result
  return (
    <Box mt="3" borderTopWidth="1px" pt="3">
      <Text fontWeight="semibold" mb="2">
        Save it, or use what is left
      </Text>
      <FieldGrid>
        <TextField form={form} name="reading" label="It reads now" unit="µS/cm" numeric />
        <TextField form={form} name="left" label="In the can" unit="L" numeric />
        <TextField
          form={form}
          name="wanted"
          label="Wanted"
          unit="L"
          numeric
          hint="Empty: what it needs."
        />
        <TextField
          form={form}
          name="vessel"
          label="The can holds"
          unit="L"
          numeric
          hint="If it is small."
        />
      </FieldGrid>
      <TickField
        form={form}
        name="stood"
        value="yes"
        label="It was right when made and has only stood"
      />
      {problem && (
        <Text role="alert" color="state.stop">
          {problem}
        </Text>
      )}
      {r && found && (
        <Box aria-live="polite">
          <Text fontSize="lg" fontWeight="semibold">
            {r.sentence}
          </Text>
          <Text fontSize="sm">
            Now{" "}
            <Quantity
              label="Dose now"
              value={r.now_g_L}
              unit="g/L"
              working={{ kind: "here", working: found.working }}
            />
            ; made for {batch.dose_g_L.toPrecision(3)} g/L.
          </Text>
          {found.working.cautions.map((c) => (
            <Text key={c} fontSize="sm" color="state.caution">
              {c}
            </Text>
          ))}
        </Box>
      )}
    </Box>
  )
}
