import { Flex, Grid, Input, Text } from "@chakra-ui/react"
import { Choice } from "../../ui/Choice"
import type { Answers, Change } from "./answers"
import { Pressed, Question } from "./Question"

const PENS = ["EC pen", "ppm pen"] as const
const SEASONS = [
  { value: "north", label: "northern seasons" },
  { value: "south", label: "southern seasons" },
  { value: "no seasons", label: "no seasons: under lamps" },
]

/** What do you measure with: nothing is an answer. Where the pots stand is folded beneath. */
export function MeasuresPart({ answers, change }: { answers: Answers; change: Change }) {
  const has = (m: (typeof answers.measures)[number]) => answers.measures.includes(m)
  const toggle = (m: (typeof answers.measures)[number]) =>
    change({
      measures: has(m) ? answers.measures.filter((x) => x !== m) : [...answers.measures, m],
    })
  const nothing = answers.measures.length === 0 && !answers.strip
  return (
    <Question n={3} title="What do you measure with?">
      <Flex gap="2" wrap="wrap">
        <Pressed on={nothing} onClick={() => change({ measures: [], strip: false })}>
          Nothing
        </Pressed>
        {PENS.map((m) => (
          <Pressed key={m} on={has(m)} onClick={() => toggle(m)}>
            {m}
          </Pressed>
        ))}
        <Pressed on={answers.strip} onClick={() => change({ strip: !answers.strip })}>
          Hardness test
        </Pressed>
        <Pressed on={has("kitchen scale")} onClick={() => toggle("kitchen scale")}>
          Kitchen scale
        </Pressed>
      </Flex>
      <Text mt="2" fontSize="sm" color="fg.muted">
        {nothing
          ? "Nothing is an answer. Usual ranges stand in, drawn hatched, and every sum gives a range."
          : "What was read is drawn narrow and solid; what was not stays hatched."}
      </Text>
      <details>
        <summary
          style={{ minHeight: 44, display: "flex", alignItems: "center", cursor: "pointer" }}
        >
          Where do they stand?
        </summary>
        <Grid templateColumns="repeat(auto-fit, minmax(140px, 1fr))" gap="2">
          <Input
            aria-label="Place"
            value={answers.place}
            minH="44px"
            maxLength={80}
            onChange={(e) => change({ place: e.target.value })}
          />
          <Choice
            label="Seasons"
            value={answers.hemisphere ?? "north"}
            choices={SEASONS}
            onValue={(v) => change({ hemisphere: v as Answers["hemisphere"] })}
          />
        </Grid>
      </details>
    </Question>
  )
}
