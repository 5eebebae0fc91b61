import { unitName } from "../../ui/format"
import { Flex } from "@chakra-ui/react"
import { Choice } from "../../ui/Choice"
import { Entry } from "../../ui/Entry"
import type { Draft } from "./draft"
import type { Asked } from "./queries"
import { Toggle } from "./Toggle"

type Named = { [K in keyof Draft]: Draft[K] extends string ? K : never }[keyof Draft]

/** What is seldom told: counts, losses, roots, growths, posture, pests, the surface, a note, another day. */
export function MorePart({
  asked,
  draft,
  problems,
  onDraft,
}: {
  asked: Asked
  draft: Draft
  problems: Record<string, string>
  onDraft: (d: Draft) => void
}) {
  const field = (name: Named, label: string, type: "text" | "date" = "text", unit = "") => (
    <Entry
      label={label}
      unit={unit}
      type={type}
      numeric={type === "text"}
      value={draft[name]}
      problem={problems[name]}
      onValue={(v) => onDraft({ ...draft, [name]: v })}
    />
  )
  const choice = (name: Named, label: string, choices: [string, string][]) => (
    <Choice
      label={label}
      value={draft[name]}
      choices={choices.map(([value, words]) => ({ value, label: `${label}: ${words}` }))}
      onValue={(v) => onDraft({ ...draft, [name]: v })}
    />
  )
  const tick = (name: "new_growth" | "growth_stopped" | "spike", label: string) => (
    <Toggle on={draft[name]} onPress={() => onDraft({ ...draft, [name]: !draft[name] })}>
      {label}
    </Toggle>
  )
  return (
    <Flex direction="column" gap="2" pt="2">
      <Flex gap="2" wrap="wrap">
        {field("leaves_count", "Leaves counted")}
        {field("lost", "Leaves lost since")}
      </Flex>
      <Flex gap="2" wrap="wrap">
        {draft.lost !== "" &&
          choice("lost_why", "Lost to", [
            ["", "not said"],
            ["age", "age"],
            ["rot", "rot"],
            ["pest", "a pest"],
            ["cut", "cut on purpose"],
            ["accident", "an accident"],
          ])}
        {choice("roots", "Roots", [
          ["", "not looked at"],
          ["yes", "alive, some with fresh tips"],
          ["no", "none that live"],
        ])}
        {choice("growth", "Growth seen", [
          ["lead", "the leading one"],
          ["side", "a side growth"],
        ])}
        {choice("posture", "Posture", [
          ["", "not looked at"],
          ["0", "stiff"],
          ["1", "a little slack"],
          ["2", "slack"],
          ["3", "flaccid"],
        ])}
        {choice(
          "surface",
          "Surface",
          asked.surfaces.map((s) => [s, s || "not looked at"]),
        )}
      </Flex>
      <Flex gap="2" wrap="wrap">
        {tick("new_growth", "New shoot or lead")}
        {tick("spike", "Spike or buds")}
        {tick("growth_stopped", "Growth has stopped")}
      </Flex>
      <Flex gap="2" wrap="wrap">
        {field("growth_length", "Its length", "text", "cm")}
        {field("all_roots", `Its roots, each, ${unitName("cm")}`)}
        {field("hour", "Hour, 0 to 23")}
        {field("pests", "Pests on a white card")}
      </Flex>
      <Flex gap="2" wrap="wrap">
        {field("on", "Date", "date")}
        {draft.new_leaf && field("opened_on", "Leaf opened on", "date")}
        {draft.new_leaf &&
          choice("opened_precision", "Known to the", [
            ["day", "day"],
            ["week", "week"],
            ["month", "month"],
          ])}
      </Flex>
      <Entry
        label="Note"
        lines={2}
        value={draft.note}
        onValue={(note) => onDraft({ ...draft, note })}
      />
    </Flex>
  )
}
