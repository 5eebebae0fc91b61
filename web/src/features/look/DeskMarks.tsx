import { Choice } from "../../ui/Choice"
import { bareMark, type Draft } from "./draft"
import type { Asked } from "./queries"

/** The marks of a plant in a row of the desk: looked for or not, none, or the kind seen. */
export function DeskMarks({
  asked,
  draft,
  onDraft,
}: {
  asked: Asked
  draft: Draft
  onDraft: (d: Draft) => void
}) {
  return (
    <Choice
      label={`Marks, ${asked.code}`}
      value={draft.told === "seen" ? (draft.marks[0]?.kind ?? "") : draft.told}
      choices={[
        { value: "not looked", label: "not looked for" },
        { value: "none", label: "none seen" },
        { value: "cannot tell", label: "cannot tell" },
        ...asked.mark_choices.map((m) => ({ value: m.kind, label: m.label })),
      ]}
      onValue={(v) => {
        const kind = asked.mark_choices.find((m) => m.kind === v)?.kind
        onDraft(
          kind
            ? { ...draft, told: "seen", marks: [bareMark(kind)] }
            : { ...draft, told: v as "none", marks: [] },
        )
      }}
    />
  )
}
