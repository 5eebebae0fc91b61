import { Box, Button, Flex, Text } from "@chakra-ui/react"
import type { ReactNode } from "react"
import { type FieldValues } from "react-hook-form"
import type { EntryForm } from "./useEntryForm"

/** A form that opens in place: title, fields, sentence if refused, accept and back out. */
export function EntrySheet<V extends FieldValues>({
  entry,
  title,
  submit,
  onCancel,
  children,
}: {
  entry: EntryForm<V>
  title: string
  submit: string
  onCancel?: () => void
  children: ReactNode
}) {
  return (
    <Box
      as="section"
      aria-label={title}
      bg="bg.panel"
      borderWidth="1px"
      borderColor="border.strong"
      borderRadius="lg"
      p="4"
      mb="4"
    >
      <Text as="h2" fontSize="lg" fontWeight="semibold" mb="3">
        {title}
      </Text>
      <form onSubmit={(e) => void entry.submit(e)} noValidate>
        <Flex
          gap="3"
          wrap="wrap"
          align="flex-start"
          css={{ "& > *": { flex: "1 1 150px", maxWidth: "420px" } }}
        >
          {children}
        </Flex>
        {entry.problem && (
          <Text role="alert" color="state.stop" mt="3">
            {entry.problem}
          </Text>
        )}
        <Flex gap="3" mt="4" wrap="wrap">
          <Button type="submit" loading={entry.pending} minH="48px">
            {submit}
          </Button>
          {onCancel && (
            <Button type="button" variant="outline" data-back onClick={onCancel} minH="48px">
              Cancel
            </Button>
          )}
        </Flex>
      </form>
    </Box>
  )
}
