import { unitName } from "../../ui/format"
import { inField, typedIn } from "../../ui/typed"
import { Box, Button, Flex, Input, Text } from "@chakra-ui/react"
import { Choice } from "../../ui/Choice"
import { bareMark, type Draft, type Mark, type MarksTold, withMark } from "./draft"
import type { Asked } from "./queries"
import { Toggle } from "./Toggle"

const TOLD: { value: MarksTold; label: string }[] = [
  { value: "none", label: "No mark" },
  { value: "cannot tell", label: "Cannot tell" },
]

/** Marks: none, some, or nobody can tell; each with its kind, how it feels where that tells, and its size. */
export function MarksPart({
  asked,
  draft,
  onDraft,
}: {
  asked: Asked
  draft: Draft
  onDraft: (d: Draft) => void
}) {
  const change = (at: number, m: Partial<Mark>) => {
    const was = draft.marks[at]
    if (was) onDraft(withMark(draft, { ...was, ...m }, at))
  }
  const without = (at: number) => {
    const marks = draft.marks.filter((_, i) => i !== at)
    onDraft({ ...draft, marks, told: marks.length ? "seen" : "not looked" })
  }
  const others = asked.mark_choices.filter((c) => c.on !== "leaf")
  return (
    <Box as="section" aria-label="Marks">
      <Text fontWeight="semibold" mb="2">
        Marks
      </Text>
      <Flex gap="2" wrap="wrap">
        {TOLD.map((t) => (
          <Toggle
            key={t.value}
            on={draft.told === t.value}
            onPress={() =>
              onDraft({
                ...draft,
                marks: [],
                told: draft.told === t.value ? "not looked" : t.value,
              })
            }
          >
            {t.label}
          </Toggle>
        ))}
        {others.map((c) => {
          const at = draft.marks.findIndex((m) => m.kind === c.kind)
          return (
            <Toggle
              key={c.kind}
              on={at >= 0}
              onPress={() => (at >= 0 ? without(at) : onDraft(withMark(draft, bareMark(c.kind))))}
            >
              {c.label}
            </Toggle>
          )
        })}
      </Flex>
      {draft.marks.map((m, at) => {
        const chosen = asked.mark_choices.find((c) => c.kind === m.kind)
        if (chosen?.on !== "leaf") return null
        const where = asked.zones.find((z) => z.place === m.place)?.label ?? "Leaf"
        return (
          <Flex key={at} gap="2" wrap="wrap" mt="2" align="center" role="group" aria-label={where}>
            <Text minW="52px">{where}</Text>
            <Choice
              label={`Kind of mark, ${where}`}
              value={m.kind}
              choices={asked.mark_choices
                .filter((c) => c.on === "leaf")
                .map((c) => ({ value: c.kind, label: c.label }))}
              onValue={(kind) => change(at, { kind: kind as Mark["kind"], texture: "" })}
            />
            {chosen.felt &&
              (["crisp", "soft"] as const).map((t) => (
                <Toggle
                  key={t}
                  on={m.texture === t}
                  onPress={() => change(at, { texture: m.texture === t ? "" : t })}
                >
                  {t === "crisp" ? "Crisp" : "Soft"}
                </Toggle>
              ))}
            <Toggle on={m.old ?? false} onPress={() => change(at, { old: !m.old })}>
              Old scar
            </Toggle>
            <Input
              aria-label={`Size of the mark in ${unitName("mm")}, ${where}`}
              placeholder={unitName("mm")}
              inputMode="decimal"
              w="84px"
              minH="48px"
              bg="bg.panel"
              value={inField(String(m.mm ?? ""), "mm")}
              onChange={(e) => change(at, { mm: typedIn(e.target.value, "mm") })}
            />
            <Input
              type="date"
              aria-label={`Since, ${where}`}
              w="150px"
              minH="48px"
              bg="bg.panel"
              value={m.since ?? ""}
              onChange={(e) => change(at, { since: e.target.value || null })}
            />
            <Button variant="ghost" minH="48px" onClick={() => without(at)}>
              Delete
            </Button>
          </Flex>
        )
      })}
    </Box>
  )
}
