import { Box, Flex, Text } from "@chakra-ui/react"
import { type ReactNode, useId } from "react"
import type { Values } from "./values"

export type PartProps = {
  values: Values
  set: (change: Partial<Values>) => void
  problem: Record<string, string>
}

/** One part of the plan: its name and its instrument. */
export function Part({
  title,
  children,
  problem,
}: {
  title: string
  children: ReactNode
  problem?: string
}) {
  return (
    <Box
      as="fieldset"
      bg="bg.panel"
      borderWidth="1px"
      borderColor={problem ? "state.stop" : "border"}
      borderRadius="lg"
      p="4"
      minW="0"
    >
      <Text as="legend" fontWeight="semibold" px="1" ml="-1">
        {title}
      </Text>
      {children}
      {problem && (
        <Text role="alert" color="state.stop" fontSize="sm" mt="2">
          {problem}
        </Text>
      )}
    </Box>
  )
}

/** One of a few choices, told by its words; what belongs to it stands beside. */
export function Pick({
  name,
  checked,
  onPick,
  label,
  children,
}: {
  name: string
  checked: boolean
  onPick: () => void
  label: ReactNode
  children?: ReactNode
}) {
  const id = useId()
  return (
    <Flex align="center" gap="2.5" minH="44px" wrap="wrap">
      <input
        id={id}
        type="radio"
        name={name}
        checked={checked}
        onChange={onPick}
        style={{ width: 20, height: 20 }}
      />
      <label htmlFor={id} style={{ cursor: "pointer" }}>
        {label}
      </label>
      {children}
    </Flex>
  )
}
