import { Box, Flex } from "@chakra-ui/react"
import { type ReactNode, useState } from "react"
import type { FieldValues, UseFormReturn } from "react-hook-form"
import { keepAnswers, lastAnswers } from "./lastAnswers"

/** What a form does not need: folded, open as it was left, and open by itself when something inside is refused. */
export function Folded<V extends FieldValues>({
  name,
  summary,
  form,
  always,
  children,
}: {
  name: string
  summary: string
  form: UseFormReturn<V>
  always: readonly string[]
  children: ReactNode
}) {
  const [open, setOpen] = useState(() => lastAnswers(`${name}-unfolded`).open === "yes")
  const refused = Object.keys(form.formState.errors).some((field) => !always.includes(field))
  return (
    <Box
      asChild
      flex="1 1 100% !important"
      maxW="none !important"
      css={{ "& > summary": { cursor: "pointer", minHeight: "44px", paddingBlock: "10px" } }}
    >
      <details
        open={open || refused}
        onToggle={(e) => {
          const now = e.currentTarget.open
          setOpen(now)
          keepAnswers(`${name}-unfolded`, { open: now ? "yes" : "no" })
        }}
      >
        <summary>{summary}</summary>
        <Flex
          gap="3"
          wrap="wrap"
          align="flex-start"
          css={{ "& > *": { flex: "1 1 150px", maxWidth: "420px" } }}
        >
          {children}
        </Flex>
      </details>
    </Box>
  )
}
