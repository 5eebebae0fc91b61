import { waterReads } from "../../../ui/format"
import { Box, Grid, Text } from "@chakra-ui/react"
import type { ReactNode } from "react"

/** What is asked at the left, what comes of it at the right; a refusal stands where the answer would. */
export function Columns({
  asked,
  problem,
  children,
}: {
  asked: ReactNode
  problem: string | null
  children: ReactNode
}) {
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1fr)" }} gap="6">
      <Box>{asked}</Box>
      <Box aria-live="polite">
        {problem && (
          <Text role="alert" color="state.stop">
            {problem}
          </Text>
        )}
        {children}
      </Box>
    </Grid>
  )
}

/** Fields that stand in as many columns as there is room for. */
export function FieldGrid({ children }: { children: ReactNode }) {
  return (
    <Grid templateColumns="repeat(auto-fit, minmax(140px, 1fr))" gap="3" alignContent="start">
      {children}
    </Grid>
  )
}

/** Sources as choices. */
export const waterChoices = (waters: { id: number; name: string; ec25_uS_cm: number | null }[]) =>
  waters.map((w) => ({
    value: String(w.id),
    label: `${w.name}, ${waterReads(w)}`,
  }))
