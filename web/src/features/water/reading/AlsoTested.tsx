import type { ReactNode } from "react"
import { Box } from "@chakra-ui/react"
import { AmountFields } from "../../../ui/AmountFields"
import { NoteField } from "../../../ui/fields"
import { type Values, TESTS } from "./entry"
import type { UseFormReturn } from "react-hook-form"

/** What was tested beside the conductivity, and a note. */
export function AlsoTested({
  form,
  children,
}: {
  form: UseFormReturn<Values>
  children: ReactNode
}) {
  return (
    <Box asChild w="100%" maxW="100% !important" flex="1 1 100% !important">
      <details>
        <summary style={{ cursor: "pointer", padding: "10px 0" }}>
          Tested as well: pH, alkalinity, hardness, chlorine, ions; a note
        </summary>
        <Box
          display="flex"
          flexWrap="wrap"
          gap="3"
          css={{ "& > *": { flex: { base: "1 1 220px", md: "1 1 150px" }, maxWidth: "420px" } }}
        >
          {children}
          <AmountFields form={form} ids={TESTS} />
          <NoteField
            form={form}
            name="note"
            label="Note"
            hint="A test may be a range such as 5-10, or <0.02."
          />
        </Box>
      </details>
    </Box>
  )
}
