import { Box, Flex, Input, NativeSelect, Text } from "@chakra-ui/react"
import { useId } from "react"
import { besideField, inField, typedIn } from "./typed"

type EntryRowProps = {
  label: string
  unit: string
  value: string
  onChange: (v: string) => void
  problem?: string
  active?: boolean
  words?: boolean
  type?: "text" | "date"
  wide?: boolean
}

/** A number with its unit at the right, in one row. */
export function EntryRow({
  label,
  unit,
  value,
  onChange,
  problem,
  active,
  words,
  type,
  wide,
}: EntryRowProps) {
  const id = useId()
  return (
    <Box mb="1.5">
      <Flex
        align="center"
        gap="2"
        borderWidth={active ? "2px" : "1px"}
        borderColor={active ? "fg" : "border"}
        borderRadius="md"
        pl="3"
        minH="46px"
      >
        <Text asChild flex="1" minW="0">
          <label htmlFor={id}>{label}</label>
        </Text>
        <Input
          id={id}
          type={type}
          value={inField(value, unit)}
          inputMode={words ? "text" : "decimal"}
          autoComplete="off"
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? `${id}-p` : undefined}
          onFocus={(e) => e.target.select()}
          onChange={(e) => onChange(words ? e.target.value : typedIn(e.target.value, unit))}
          w={wide ? "220px" : type === "date" ? "150px" : unit ? "92px" : "56px"}
          pr={unit ? undefined : "3"}
          textAlign="right"
          fontWeight="semibold"
          fontSize="lg"
          variant="flushed"
          borderColor="transparent"
        />
        {unit && (
          <Text color="fg.muted" minW="58px" fontSize="sm">
            {besideField(unit)}
          </Text>
        )}
      </Flex>
      {problem && (
        <Text id={`${id}-p`} role="alert" color="state.stop" fontSize="sm">
          {problem}
        </Text>
      )}
    </Box>
  )
}

type ChooseProps = {
  label: string
  value: string
  onChange: (v: string) => void
  problem?: string
  children: React.ReactNode
}

/** A choice with its label above. */
export function Choose({ label, value, onChange, problem, children }: ChooseProps) {
  const id = useId()
  return (
    <Box mb="2.5" minW="0">
      <Text asChild fontSize="sm" color="fg.muted">
        <label htmlFor={id}>{label}</label>
      </Text>
      <NativeSelect.Root>
        <NativeSelect.Field
          id={id}
          value={value}
          onChange={(e) => onChange(e.target.value)}
          minH="44px"
        >
          {children}
        </NativeSelect.Field>
        <NativeSelect.Indicator aria-hidden />
      </NativeSelect.Root>
      {problem && (
        <Text role="alert" color="state.stop" fontSize="sm">
          {problem}
        </Text>
      )}
    </Box>
  )
}
