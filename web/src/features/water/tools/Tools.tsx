import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { lazy, Suspense } from "react"
import { useSearchParams } from "react-router"
import type { Schemas } from "../../../api/client"
import { Card } from "../../../ui/Page"
import { TOOLS } from "./toolList"

const Panel = lazy(() => import("./Panels"))

/** What to do about it: each tool opens in place, under the waters it works on. */
export function Tools({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const [params, setParams] = useSearchParams()
  const open = TOOLS.find((t) => t.id === params.get("tool"))
  return (
    <Box mt="4">
      <Flex as="nav" aria-label="Water tools" gap="2" wrap="wrap" mb="3">
        {TOOLS.map((t) => (
          <Button key={t.id} variant={t.id === open?.id ? "solid" : "outline"} minH="44px" aria-expanded={t.id === open?.id} onClick={() => setParams(t.id === open?.id ? {} : { tool: t.id }, { replace: true, preventScrollReset: true })}>{t.name}</Button>
        ))}
      </Flex>
      {open && (
        <Card title={open.name} label={`Tool: ${open.name}`}>
          <Suspense fallback={<Text role="status">One moment.</Text>}><Panel id={open.id} page={page} chosen={chosen} /></Suspense>
        </Card>
      )}
    </Box>
  )
}
