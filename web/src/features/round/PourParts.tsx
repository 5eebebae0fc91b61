import { Box, Button, Flex } from "@chakra-ui/react"
import { memo } from "react"
import type { UseFormReturn } from "react-hook-form"
import type { Schemas } from "../../api/client"
import { useOptions } from "../../api/queries"
import { SelectField, TextField } from "../../ui/fields"

export type PourValues = {
  runoff_volume: string
  runoff_ec: string
  runoff_method: NonNullable<Schemas["PourIn"]["runoff_method"]>
  runoff_pH: string
  note: string
  mark: string
}

type AmountProps = {
  amount: number
  step: number
  more: boolean
  onAmount: (mL: number) => void
  onMore: () => void
}

/** Less, more, and what else can be said of a pour. */
export const AmountButtons = memo(function AmountButtons({
  amount,
  step,
  more,
  onAmount,
  onMore,
}: AmountProps) {
  return (
    <Flex gap="2.5" mt="4">
      <Button
        data-key="-"
        type="button"
        variant="outline"
        flex="1"
        minH="56px"
        fontSize="lg"
        aria-label={`${step} mL less`}
        onClick={() => onAmount(Math.max(step, amount - step))}
      >
        − {step}
      </Button>
      <Button
        data-key="+"
        type="button"
        variant="outline"
        flex="1"
        minH="56px"
        fontSize="lg"
        aria-label={`${step} mL more`}
        onClick={() => onAmount(amount + step)}
      >
        + {step}
      </Button>
      <Button
        data-key="m"
        type="button"
        variant="outline"
        flex="1"
        minH="56px"
        fontSize="lg"
        aria-expanded={more}
        onClick={onMore}
      >
        Note, runoff
      </Button>
    </Flex>
  )
})

/** Runoff, note and a mark on a leaf; the note alone where two entries of it conflict. */
export function PourExtras({ form, more }: { form: UseFormReturn<PourValues>; more: boolean }) {
  const options = useOptions()
  const marks = options?.marks ?? []
  return (
    <Flex gap="3" mt="3" wrap="wrap">
      {more && (
        <Box flex="1 1 130px">
          <TextField form={form} name="runoff_volume" label="Ran out" unit="mL" numeric />
        </Box>
      )}
      {more && (
        <Box flex="1 1 130px">
          <TextField form={form} name="runoff_ec" label="It reads" unit="µS/cm" numeric />
        </Box>
      )}
      {more && (
        <Box flex="1 1 180px">
          <SelectField
            form={form}
            name="runoff_method"
            label="What was caught"
            choices={options?.runoff_methods ?? []}
          />
        </Box>
      )}
      {more && (
        <Box flex="1 1 100px">
          <TextField form={form} name="runoff_pH" label="Its pH" numeric />
        </Box>
      )}
      <Box flex="1 1 180px">
        <TextField form={form} name="note" label="Note" />
      </Box>
      {more && (
        <Box flex="1 1 130px">
          <SelectField
            form={form}
            name="mark"
            label="Mark on a leaf"
            choices={[{ value: "", label: "none seen" }, ...marks]}
          />
        </Box>
      )}
    </Flex>
  )
}
