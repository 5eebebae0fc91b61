import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useQueryClient } from "@tanstack/react-query"
import type { Dispatch, SetStateAction } from "react"
import { forPotsQuery, useSettings } from "../../../api/queries"
import { figure } from "../../../ui/format"
import { type Draft, type Page } from "../draft"

export function Pots({
  page,
  draft,
  onChange,
}: {
  page: Page
  draft: Draft
  onChange: Dispatch<SetStateAction<Draft>>
}) {
  const cache = useQueryClient()
  const factor = useSettings()?.display?.volume?.factor ?? 1
  if (page.pots.length === 0) return null
  const toggle = (id: number) => {
    const pot_ids = draft.pot_ids.includes(id)
      ? draft.pot_ids.filter((i) => i !== id)
      : [...draft.pot_ids, id]
    onChange({ ...draft, pot_ids })
    if (pot_ids.length === 0 || draft.route === "leaf") return
    void cache.fetchQuery(forPotsQuery(pot_ids)).then((can) => {
      const volume = figure(can.volume_L * factor, 4)
      onChange((now) => (now.pot_ids === pot_ids ? { ...now, volume } : now))
    })
  }
  const chosen = page.pots.filter((p) => draft.pot_ids.includes(p.id))
  return (
    <Box as="fieldset" mb="3" minW="0">
      <Text as="legend" fontSize="sm" color="fg.muted" mb="1">
        For which pots
      </Text>
      <Flex
        wrap="wrap"
        gap="1.5"
        maxH="138px"
        overflowY="auto"
        tabIndex={0}
        role="group"
        aria-label="Pots to choose"
      >
        {page.pots.map((p) => {
          const on = draft.pot_ids.includes(p.id)
          return (
            <Button
              key={p.id}
              type="button"
              size="sm"
              minH="40px"
              variant={on ? "solid" : "outline"}
              aria-pressed={on}
              title={p.held || p.name}
              onClick={() => toggle(p.id)}
            >
              {p.code}
              {p.held ? " · held" : ""}
            </Button>
          )
        })}
      </Flex>
      {chosen.map(
        (p) =>
          (p.held || !p.feeds_at_root) && (
            <Text key={p.id} color="state.caution" fontSize="sm" mt="1">
              {p.code}:{" "}
              {p.held ||
                (draft.route === "leaf"
                  ? "never at the root; on the leaf only."
                  : "is not fed at the root. Choose the leaf as route.")}
            </Text>
          ),
      )}
    </Box>
  )
}
