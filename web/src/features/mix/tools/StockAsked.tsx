import { Box, Flex } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { SelectField, TextField } from "../../../ui/fields"
import { FieldGrid, waterChoices } from "./Columns"
import { type Values, PLACES } from "./stock"
import type { UseFormReturn } from "react-hook-form"

/** What goes into the bottles, and how they are drawn from. */
export function StockAsked({
  form,
  values,
  choices,
  waters,
  unit,
}: {
  form: UseFormReturn<Values>
  values: Values
  choices: { value: string; label: string }[]
  waters: Schemas["MixWater"][]
  unit: string
}) {
  return (
    <>
      {PLACES.map((i) => (
        <Flex key={i} gap="3" mb="2">
          <Box flex="2" minW="0">
            <SelectField form={form} name={`p.${i}`} label={`Product ${i + 1}`} choices={choices} />
          </Box>
          <Box flex="1" minW="0">
            <TextField form={form} name={`d.${i}`} label="In the can" unit="g/L" numeric />
          </Box>
        </Flex>
      ))}
      <FieldGrid>
        <SelectField
          form={form}
          name="way"
          label="Drawn by"
          choices={[
            { value: "draw", label: "syringe" },
            { value: "ratio", label: "injector" },
          ]}
        />
        {values.way === "draw" ? (
          <TextField form={form} name="draw" label="Draw" unit="mL in a litre" numeric />
        ) : (
          <TextField form={form} name="ratio" label="Ratio, n" numeric />
        )}
        {values.way === "ratio" && (
          <SelectField
            form={form}
            name="meaning"
            label="It means"
            choices={[
              { value: "1 in n", label: "1 part in n" },
              { value: "1 plus n", label: "1 part + n parts" },
            ]}
          />
        )}
        {values.way === "draw" ? (
          <TextField form={form} name="volume" label="For a can of" unit={unit} numeric />
        ) : (
          <TextField form={form} name="tank" label="Tank" unit="L" numeric />
        )}
        <SelectField
          form={form}
          name="water_id"
          label="Filled with"
          choices={waterChoices(waters)}
        />
        <TextField form={form} name="cold" label="Coldest store" unit="°C" numeric />
      </FieldGrid>
    </>
  )
}
