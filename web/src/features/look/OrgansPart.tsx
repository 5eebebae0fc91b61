import { Box, Flex, Input, Text } from "@chakra-ui/react"
import { Choice } from "../../ui/Choice"
import { type Draft, organOf, withOrgan } from "./draft"
import type { Asked, OrganAsked } from "./queries"

const TOLD = [
  { value: "", label: "not looked at" },
  { value: "seen", label: "seen" },
  { value: "none seen", label: "looked for, none seen" },
  { value: "cannot tell", label: "cannot tell" },
]

/** What this kind shows beside its leaves: root tips, pitchers, dew, spikes, bulbs. */
export function OrgansPart({
  asked,
  draft,
  onDraft,
}: {
  asked: Asked
  draft: Draft
  onDraft: (d: Draft) => void
}) {
  return (
    <Box as="section" aria-label="What this kind shows">
      {asked.organs.map((o) => (
        <OneOrgan key={o.organ} asked={o} draft={draft} onDraft={onDraft} />
      ))}
    </Box>
  )
}

function OneOrgan({
  asked,
  draft,
  onDraft,
}: {
  asked: OrganAsked
  draft: Draft
  onDraft: (d: Draft) => void
}) {
  const told = draft.organs.find((o) => o.organ === asked.organ)?.told ?? ""
  const now = organOf(draft, asked.organ)
  const last = asked.figures
    .map((f) => ({ f, v: asked.last?.[f.figure] }))
    .filter(({ v }) => v !== null && v !== undefined)
    .map(({ f, v }) => `${v} ${f.unit ? `${f.unit} ${f.label}` : f.label}`)
    .join(", ")
  return (
    <Box borderTopWidth="1px" py="2" role="group" aria-label={asked.label}>
      <Flex gap="2" wrap="wrap" align="center">
        <Text flex="1 1 110px">
          {asked.label}
          {last && (
            <Text as="span" color="fg.muted" fontSize="sm">
              {" "}
              last: {last}
            </Text>
          )}
        </Text>
        <Choice
          label={`${asked.label}: looked at?`}
          value={told}
          choices={TOLD}
          onValue={(v) =>
            onDraft(
              v === ""
                ? { ...draft, organs: draft.organs.filter((o) => o.organ !== asked.organ) }
                : withOrgan(draft, { organ: asked.organ, told: v as "seen", words: {} }),
            )
          }
        />
      </Flex>
      {told === "seen" && (
        <Flex gap="2" wrap="wrap" mt="1">
          {asked.figures.map((f) => (
            <Box asChild key={f.figure} fontSize="sm">
              <label>
                {f.label}
                {f.unit && `, ${f.unit}`}
                <Input
                  inputMode="decimal"
                  autoComplete="off"
                  w="96px"
                  minH="48px"
                  display="block"
                  bg="bg.panel"
                  value={String(now[f.figure] ?? "")}
                  onChange={(e) =>
                    onDraft(withOrgan(draft, { ...now, [f.figure]: e.target.value }))
                  }
                />
              </label>
            </Box>
          ))}
          {Object.entries(asked.words).map(([word, choices]) => (
            <Choice
              key={word}
              label={`${asked.label}: ${word}`}
              value={now.words?.[word] ?? ""}
              choices={[
                { value: "", label: `${word}: not said` },
                ...choices.map((c) => ({ value: c, label: `${word}: ${c}` })),
              ]}
              onValue={(v) => {
                const others = Object.entries(now.words ?? {}).filter(([w]) => w !== word)
                const words = Object.fromEntries(v === "" ? others : [...others, [word, v]])
                onDraft(withOrgan(draft, { ...now, words }))
              }}
            />
          ))}
        </Flex>
      )}
    </Box>
  )
}
