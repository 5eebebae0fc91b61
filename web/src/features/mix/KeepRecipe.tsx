import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useSettings } from "../../api/queries"
import { TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"
import { body, type Draft } from "./draft"

/** A name for this can; under a known name it becomes the next version. */
export function KeepRecipe({
  draft,
  onKept,
  onCancel,
}: {
  draft: Draft
  onKept: (name: string) => void
  onCancel: () => void
}) {
  const unit = useSettings()?.volume_unit ?? "L"
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<{ name: string }, Schemas["Stored"]>(
    { name: draft.recipe },
    (v, key) =>
      answer(
        client.POST("/api/recipes", {
          params: keyed(key),
          body: { ...body(draft, unit), name: v.name },
        }),
      ),
    (stored, v) => {
      notice({
        text: `Recipe ${v.name} saved. Old cans keep the version they used.`,
        undo: () => undo("recipe", stored.id),
      })
      onKept(v.name)
    },
  )
  return (
    <EntrySheet entry={entry} title="Save as a recipe" submit="Save the recipe" onCancel={onCancel}>
      <TextField
        form={entry.form}
        name="name"
        label="Name of the recipe"
        hint="A name that is known gets its next version."
      />
    </EntrySheet>
  )
}
