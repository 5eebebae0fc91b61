import { Box } from "@chakra-ui/react"

/** The letter of a day, as the axis shows it. */
export function Letter({
  of,
  lit,
  onLight,
}: {
  of: string
  lit?: boolean
  onLight?: (on: boolean) => void
}) {
  return (
    <Box
      as="span"
      display="inline-block"
      minW="18px"
      px="1"
      ml="1"
      textAlign="center"
      fontSize="11px"
      fontWeight="bold"
      borderWidth="1.5px"
      borderColor="fg"
      borderRadius="sm"
      bg={lit ? "ink.solid" : "bg.panel"}
      color={lit ? "ink.contrast" : "fg"}
      onMouseEnter={() => onLight?.(true)}
      onMouseLeave={() => onLight?.(false)}
    >
      {of}
    </Box>
  )
}
