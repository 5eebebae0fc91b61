import { Box } from "@chakra-ui/react"

export function Safety({ lines }: { lines: string[] }) {
  return (
    <Box as="ul" pl="5" my="2" listStyleType="disc" fontSize="sm" aria-label="Safety with acids">
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </Box>
  )
}
