import { Box, Button, Flex, Heading, type ButtonProps } from "@chakra-ui/react"
import type { ReactNode } from "react"

/** The number of a question; it stands again where its answer took effect. */
export function Numbered({ n }: { n: number }) {
  return (
    <Flex
      as="span"
      aria-hidden
      align="center"
      justify="center"
      boxSize="24px"
      flex="none"
      borderRadius="full"
      borderWidth="1px"
      borderColor="fg"
      fontSize="sm"
    >
      {n}
    </Flex>
  )
}

export function Question({
  n,
  title,
  children,
}: {
  n: number
  title: string
  children: ReactNode
}) {
  return (
    <Box as="section" aria-label={title} py="4" _first={{ pt: 0 }} _last={{ pb: 0 }}>
      <Flex gap="2.5" align="center" mb="2">
        <Numbered n={n} />
        <Heading as="h2" fontSize="md" fontWeight="semibold">
          {title}
        </Heading>
      </Flex>
      {children}
    </Box>
  )
}

/** One of several answers, pressed or not. */
export function Pressed({ on, ...rest }: { on: boolean } & ButtonProps) {
  return (
    <Button
      type="button"
      size="sm"
      minH="44px"
      variant={on ? "solid" : "outline"}
      aria-pressed={on}
      {...rest}
    />
  )
}
