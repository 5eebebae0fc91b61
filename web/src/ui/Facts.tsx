import { Box, Flex } from "@chakra-ui/react"
import type { ReactNode } from "react"

/** Names and figures in two columns. */
export function Facts({ rows }: { rows: readonly (readonly [string, ReactNode] | null)[] }) {
  return (
    <Box as="dl" fontSize="sm" mt="2">
      {rows.map(
        (row) =>
          row && (
            <Flex key={row[0]} justify="space-between" gap="4" py="1" borderTopWidth="1px">
              <Box as="dt" color="fg.muted">
                {row[0]}
              </Box>
              <Box as="dd" textAlign="right" fontWeight="medium">
                {row[1]}
              </Box>
            </Flex>
          ),
      )}
    </Box>
  )
}
