import { Box, Text } from "@chakra-ui/react"

/** Fields that few need, folded. */
export function More({ summary, children }: { summary: string; children: React.ReactNode }) {
  return (
    <Box asChild flex="1 1 100% !important" maxW="none !important">
      <details>
        <summary style={{ cursor: "pointer", padding: "10px 0" }}>{summary}</summary>
        <Box
          display="flex"
          gap="3"
          flexWrap="wrap"
          css={{ "& > *": { flex: "1 1 150px", maxWidth: "420px" } }}
        >
          {children}
        </Box>
      </details>
    </Box>
  )
}

/** A note under a form, as wide as it. */
export function Wide({ children }: { children: React.ReactNode }) {
  return (
    <Text flex="1 1 100% !important" maxW="none !important" fontSize="sm">
      {children}
    </Text>
  )
}
