import { drawn, inField, typedIn } from "../../ui/typed"
import { amount, unitName } from "../../ui/format"
import { Box, Field, Flex, Grid, Input, Text } from "@chakra-ui/react"
import { bareMark, type Draft, withMark } from "./draft"
import { LeafRule } from "./LeafRule"
import type { Asked } from "./queries"
import { Toggle } from "./Toggle"

/** The newest leaf: new or the one before, its length by dragging or typing, and where a mark is. */
export function LeafPart({
  asked,
  draft,
  problem,
  onDraft,
}: {
  asked: Asked
  draft: Draft
  problem?: string
  onDraft: (d: Draft) => void
}) {
  const newest = asked.leaves[0]
  const number = (newest?.number ?? 0) + (draft.new_leaf ? 1 : 0)
  const ghost = draft.new_leaf
    ? { number: newest?.number, mm: asked.new_ghost_mm, when: "when it opened" }
    : { number: asked.ghost_number, mm: asked.ghost_mm, when: "at this age" }
  const mm = drawn(draft.newest_leaf, "mm")
  const mark = (place: string) => {
    const zone = asked.zones.find((z) => z.place === place)
    if (!zone) return
    onDraft(
      withMark(draft, {
        ...bareMark(zone.kind),
        place: zone.place,
        leaf_id: draft.new_leaf ? null : (newest?.id ?? null),
        on_new: draft.new_leaf,
      }),
    )
  }
  return (
    <Box as="section" aria-label="Leaf">
      <Flex gap="2" wrap="wrap" mb="2" align="center">
        <Text fontWeight="semibold" flex="1 1 120px">
          {number > 0
            ? `Leaf ${number}${draft.new_leaf ? ", new" : ", the newest"}`
            : "No leaf yet"}
        </Text>
        <Toggle
          on={draft.new_leaf}
          onPress={() =>
            onDraft({ ...draft, new_leaf: !draft.new_leaf, growing: draft.new_leaf ? "" : "yes" })
          }
        >
          New leaf
        </Toggle>
      </Flex>
      <Grid templateColumns="minmax(0, 1fr) 122px" gap="3" alignItems="start">
        <LeafRule
          asked={asked}
          ghost_mm={ghost.mm}
          mm={mm}
          marked={draft.marks.map((m) => m.place ?? "unknown")}
          onLength={(length) => onDraft({ ...draft, newest_leaf: String(length) })}
          onZone={mark}
        />
        <Flex direction="column" gap="2">
          <Field.Root invalid={!!problem}>
            <Field.Label fontSize="sm">Newest leaf, {unitName("mm")}</Field.Label>
            <Input
              inputMode="decimal"
              autoComplete="off"
              minH="48px"
              fontSize="1.5rem"
              fontWeight="semibold"
              placeholder="not measured"
              _placeholder={{ fontSize: "sm" }}
              bg="bg.panel"
              value={inField(draft.newest_leaf, "mm")}
              onChange={(e) => onDraft({ ...draft, newest_leaf: typedIn(e.target.value, "mm") })}
            />
            {problem && (
              <Field.ErrorText color="state.stop" fontSize="sm">
                {problem}
              </Field.ErrorText>
            )}
          </Field.Root>
          {ghost.mm !== null && (
            <Text fontSize="sm" color="fg.muted">
              Leaf {ghost.number} was {amount(ghost.mm, "mm")} {ghost.when}.
            </Text>
          )}
          <Toggle
            on={draft.growing === "yes"}
            onPress={() => onDraft({ ...draft, growing: draft.growing === "yes" ? "" : "yes" })}
          >
            Still growing
          </Toggle>
          <Toggle
            on={draft.growing === "no"}
            onPress={() => onDraft({ ...draft, growing: draft.growing === "no" ? "" : "no" })}
          >
            Finished
          </Toggle>
        </Flex>
      </Grid>
      <Flex gap="2" wrap="wrap" mt="2" role="group" aria-label="Where is a mark?">
        {asked.zones.map((z) => (
          <Toggle
            key={z.place}
            on={draft.marks.some((m) => m.place === z.place)}
            onPress={() => mark(z.place)}
            label={`Mark: ${z.label}`}
          >
            {z.label}
          </Toggle>
        ))}
      </Flex>
    </Box>
  )
}
