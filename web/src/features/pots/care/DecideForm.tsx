import { Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { NoteField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { day } from "../../../ui/format"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { useUndo } from "../../../ui/useUndo"

const load = (id: number) =>
  answer(client.GET("/api/pots/{pot_id}/decisions", { params: { path: { pot_id: id } } }))
const decisionsQuery = (id: number) =>
  queryOptions({ queryKey: ["pots", "one", id, "decisions"], queryFn: () => load(id) })
type Props = { potId: number; today: string; onClose: () => void }

/** One change at a time, with the day to look again: doing nothing is a decision too. */
export function DecideForm(props: Props) {
  const page = useQuery(decisionsQuery(props.potId)).data
  return page ? <Decide {...props} page={page} /> : <Text role="status">One moment.</Text>
}

function Decide({
  potId,
  today,
  onClose,
  page,
}: Props & { page: Awaited<ReturnType<typeof load>> }) {
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<
    { what: string; why: string; on: string; look_again_on: string },
    Schemas["Stored"]
  >(
    { what: "", why: "", on: today, look_again_on: page.look_again_on },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/decisions", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: { ...v, look_again_on: v.look_again_on || null },
        }),
      ),
    (stored) => {
      notice({ text: "The decision is saved.", undo: () => undo("decision", stored.id) })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title="What is decided" submit="Save the decision" onCancel={onClose}>
      {page.decisions.length > 0 && (
        <Text flexBasis="100%!" maxW="none!" color="fg.muted">
          Before:{" "}
          {page.decisions
            .slice(0, 3)
            .map((d) => {
              const again = d.look_again_on && ` (look again ${day(d.look_again_on, today)})`
              return `${day(d.on, today)}, ${d.what}${again || ""}${d.caution ? `. ${d.caution}` : ""}`
            })
            .join("; ")}
          .
        </Text>
      )}
      <TextField
        form={entry.form}
        name="what"
        label="Decided"
        placeholder="half the feed; nothing yet"
        hint="One change at a time, or nobody knows what it was."
      />
      <TextField
        form={entry.form}
        name="look_again_on"
        label="Look again on"
        type="date"
        hint={[
          `This kind answers salt in ${page.salt_days.join(" to ")} days,`,
          `hunger in ${page.hunger_days.join(" to ")}.`,
        ].join(" ")}
      />
      <TextField form={entry.form} name="on" label="On" type="date" />
      <NoteField form={entry.form} name="why" label="Why" hint={`First seen: ${page.first_sign}`} />
    </EntrySheet>
  )
}
