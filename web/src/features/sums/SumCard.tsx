import { Box, Text } from "@chakra-ui/react"
import { type ReactNode, use } from "react"
import type { Working } from "../../api/queries"
import { Card } from "../../ui/Page"
import { WorkingContext } from "../../ui/workingContext"

type Props = {
  title: string
  result: string
  unit?: string
  said: ReactNode
  working?: Working
  problem: string | null
  save?: ReactNode
  children: ReactNode
}

/** A question, its few fields, the answer in large figures and one sentence; the working a key away. */
export function SumCard({
  title,
  result,
  unit = "",
  said,
  working,
  problem,
  save,
  children,
}: Props) {
  return (
    <Card title={title}>
      {children}
      <Box aria-live="polite" mt="3">
        {problem ? (
          <Text role="alert" color="state.stop">
            {problem}
          </Text>
        ) : (
          <>
            <Answer title={title} result={result} unit={unit} working={working} />
            <Text mt="1">{said}</Text>
          </>
        )}
      </Box>
      {!problem && save}
    </Card>
  )
}

function Answer({
  title,
  result,
  unit,
  working,
}: Pick<Props, "title" | "result" | "unit" | "working">) {
  const open = use(WorkingContext)
  const words = (
    <>
      {result}
      {unit && (
        <Box as="span" fontSize="md" fontWeight="normal" color="fg.muted">
          {" "}
          {unit}
        </Box>
      )}
    </>
  )
  if (!working)
    return (
      <Text fontSize="1.6rem" fontWeight="semibold" lineHeight="1.2">
        {words}
      </Text>
    )
  return (
    <Box
      asChild
      fontSize="1.6rem"
      fontWeight="semibold"
      lineHeight="1.2"
      textAlign="left"
      textDecoration="underline dotted"
      textUnderlineOffset="0.22em"
      cursor="help"
      minH="44px"
    >
      <button
        type="button"
        data-working
        aria-label={`${title} ${result} ${unit}. Show working`}
        onClick={() => open({ kind: "here", working }, title)}
      >
        {words}
      </button>
    </Box>
  )
}
