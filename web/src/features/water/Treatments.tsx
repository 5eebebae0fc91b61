import { Box, Button, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { day } from "../../ui/format"
import { useNotice } from "../../ui/noticeContext"
import { Quantity } from "../../ui/Quantity"
import { useUndo } from "../../ui/useUndo"

/** What was done to a water, and what it really removed. */
export function Treatments({ water, today }: { water: Schemas["WaterOut"]; today: string }) {
  const undo = useUndo()
  const notice = useNotice()
  if (water.treatments.length === 0) return null
  return (
    <Box as="ul" listStyleType="none" mt="2" fontSize="sm" aria-label="Steps">
      {water.treatments.slice(0, 3).map((t) => (
        <Flex
          as="li"
          key={t.id}
          justify="space-between"
          align="center"
          py="1"
          borderTopWidth="1px"
          gap="3"
        >
          <Box>
            <Text>
              {day(t.on, today)}: {t.kind}
              {t.note && `, ${t.note}`}
              {t.in_force ? "" : " (no longer acts)"}
            </Text>
            {t.effect && (
              <Text color="fg.muted">
                Removed{" "}
                <Quantity
                  label="Removed"
                  value={t.effect.removed_pct}
                  low={t.effect.low_pct}
                  high={t.effect.high_pct}
                  unit="%"
                  working={{
                    kind: "fetch",
                    key: `treatment-${t.id}`,
                    load: async () =>
                      (
                        await answer(
                          client.GET("/api/treatments/{treatment_id}/effect", {
                            params: { path: { treatment_id: t.id } },
                          }),
                        )
                      ).working,
                  }}
                />
                . {t.effect.sentence}
              </Text>
            )}
          </Box>
          <Button
            size="xs"
            variant="outline"
            aria-label={`Delete the step of ${day(t.on)}`}
            onClick={() => {
              undo("treatment", t.id)
              notice({ text: "Step deleted.", undo: () => undo("treatment", t.id, true) })
            }}
          >
            Delete
          </Button>
        </Flex>
      ))}
    </Box>
  )
}
