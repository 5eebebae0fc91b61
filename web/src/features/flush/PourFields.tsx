import { Button, Flex, Text } from "@chakra-ui/react"
import type { UseFormReturn } from "react-hook-form"
import { TextField } from "../../ui/fields"
import { figure } from "../../ui/format"

export type Poured = { volume: string; runoff_ec: string }

/** What of a pass is entered with one thumb: how much, what the last of it reads, and that it is poured. */
export function PourFields<V extends Poured>({
  form,
  problem,
  pending,
}: {
  form: UseFormReturn<V>
  problem: string | null
  pending: boolean
}) {
  const plain = form as unknown as UseFormReturn<Poured>
  return (
    <>
      <Flex gap="3" mt="3" wrap="wrap" css={{ "& > *": { flex: "1 1 140px" } }}>
        <TextField form={plain} name="volume" label="Pour" unit="mL" numeric />
        <TextField
          form={plain}
          name="runoff_ec"
          label="The last that runs out"
          unit="µS/cm"
          numeric
          hint="Empty: not read."
        />
      </Flex>
      {problem && (
        <Text role="alert" color="state.stop" mt="2">
          {problem}
        </Text>
      )}
      <Button type="submit" mt="3" minH="56px" w="100%" fontSize="lg" loading={pending}>
        Poured {figure(Number(plain.watch("volume").replace(",", ".")) || 0, 4)} mL
      </Button>
    </>
  )
}
