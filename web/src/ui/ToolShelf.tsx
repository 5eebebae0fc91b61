import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { type ReactNode, Suspense } from "react"
import { useSearchParams } from "react-router"
import { Card } from "./Page"

export type Tool<Id extends string> = { id: Id; name: string }

/** Tools of a station: one opens in place at a time, and its name stands in the address. */
export function ToolShelf<Id extends string>({
  label,
  tools,
  children,
}: {
  label: string
  tools: readonly Tool<Id>[]
  children: (id: Id) => ReactNode
}) {
  const [params, setParams] = useSearchParams()
  const open = tools.find((t) => t.id === params.get("tool"))
  return (
    <Box mt="4">
      <Flex as="nav" aria-label={label} gap="2" wrap="wrap" mb="3">
        {tools.map((t) => (
          <Button
            key={t.id}
            variant={t.id === open?.id ? "solid" : "outline"}
            minH="44px"
            aria-expanded={t.id === open?.id}
            onClick={() =>
              setParams(t.id === open?.id ? {} : { tool: t.id }, {
                replace: true,
                preventScrollReset: true,
              })
            }
          >
            {t.name}
          </Button>
        ))}
      </Flex>
      {open && (
        <Card title={open.name} label={`Tool: ${open.name}`}>
          <Suspense fallback={<Text role="status">One moment.</Text>}>{children(open.id)}</Suspense>
        </Card>
      )}
    </Box>
  )
}
