import { Box, Flex, Text } from "@chakra-ui/react"
import type { UseQueryResult } from "@tanstack/react-query"
import type { Schemas } from "../../api/client"
import type { ApiProblem } from "../../api/problem"
import { Choice } from "../../ui/Choice"
import { Quantity } from "../../ui/Quantity"
import type { WhatIf } from "./queries"

/** One change of rhythm for all pots or for a kind: how many would cross their ceilings, and what it takes. */
export function WhatIfBar({
  kinds,
  kind,
  change,
  years: found,
  onKind,
  onChange,
}: {
  kinds: { id: string; name: string }[]
  kind: string
  change: WhatIf
  years: UseQueryResult<Schemas["ChangesPage"], ApiProblem>
  onKind: (kind: string) => void
  onChange: (change: WhatIf) => void
}) {
  const together = found.data?.together
  const now = together?.result.changes.find((c) => c.change === change)
  return (
    <Box px="2" pb="2">
      <Flex gap="2" wrap="wrap" align="center" mb="2">
        <Choice
          label="Kind"
          value={kind}
          onValue={onKind}
          choices={[
            { value: "", label: "every kind" },
            ...kinds.map((k) => ({ value: k.id, label: k.name })),
          ]}
        />
        <Choice
          label="The year ahead with"
          value={change}
          onValue={(v) => onChange(v as WhatIf)}
          choices={(together?.result.changes ?? [{ change, crossing: null }]).map((c) => ({
            value: c.change,
            label: c.crossing === null ? c.change : `${c.change}: ${c.crossing} over`,
          }))}
        />
      </Flex>
      {found.isError && <Text role="alert">{found.error.message}</Text>}
      {together && now && (
        <Text fontSize="sm" color="fg.muted">
          {together.result.sentence}{" "}
          <Quantity
            label={`Water a month, ${now.change}`}
            kind="volume"
            value={now.litres_month}
            working={{ kind: "here", working: together.working }}
          />{" "}
          of water a month.
        </Text>
      )}
    </Box>
  )
}
