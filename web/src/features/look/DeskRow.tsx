import { inField, typedIn } from "../../ui/typed"
import { Box, Button, Input, Text } from "@chakra-ui/react"
import { useRef, useState } from "react"
import { Link } from "react-router"
import { Choice } from "../../ui/Choice"
import { Tick } from "../../ui/Tick"
import { day, numberIn } from "../../ui/format"
import { DeskMarks } from "./DeskMarks"
import type { Asked } from "./queries"
import { useLook } from "./useLook"

const nextField = (row: HTMLTableRowElement | null) =>
  row?.nextElementSibling?.querySelector<HTMLInputElement>("input")?.focus()

/** One plant of the table: what was seen last stands as a hint; Enter saves. */
export function DeskRow({ asked }: { asked: Asked }) {
  const row = useRef<HTMLTableRowElement>(null)
  const [saved, setSaved] = useState(false)
  const { draft, setDraft, problem, pending, save } = useLook(asked, () => {
    setSaved(true)
    nextField(row.current)
  })
  const cell = (
    name: "leaves_count" | "newest_leaf" | "note",
    label: string,
    hint: string,
    w: string,
  ) => (
    <Input
      aria-label={`${label}, ${asked.code}`}
      placeholder={hint}
      inputMode={name === "note" ? undefined : "decimal"}
      autoComplete="off"
      w={w}
      minH="44px"
      bg="bg.panel"
      value={name === "newest_leaf" ? inField(draft.newest_leaf, "mm") : draft[name]}
      onChange={(e) => {
        setSaved(false)
        const text = e.target.value
        setDraft({ ...draft, [name]: name === "newest_leaf" ? typedIn(text, "mm") : text })
      }}
    />
  )
  return (
    <Box
      as="tr"
      ref={row}
      borderTopWidth="1px"
      onKeyDown={(e: React.KeyboardEvent) => {
        if (
          e.key !== "Enter" ||
          !(e.target instanceof HTMLInputElement) ||
          e.target.type === "checkbox"
        )
          return
        e.preventDefault()
        void save()
      }}
    >
      <th scope="row">
        <Link to={`/look/${asked.pot_id}`} style={{ textDecoration: "underline" }}>
          {asked.code}
        </Link>{" "}
        <Text as="span" fontWeight="normal">
          {asked.name}
        </Text>
        <Text fontSize="xs" color="fg.muted" fontWeight="normal">
          {asked.last_on ? day(asked.last_on, asked.today) : "never looked at"}
        </Text>
      </th>
      <td>
        {cell(
          "leaves_count",
          "Leaves counted",
          asked.leaves_count === null ? "" : String(asked.leaves_count),
          "84px",
        )}
      </td>
      <td>
        <Box pt="2.5">
          <Tick
            label={`New leaf, ${asked.code}`}
            checked={draft.new_leaf}
            onChange={(ticked) =>
              setDraft({ ...draft, new_leaf: ticked, growing: ticked ? "yes" : "" })
            }
          />
        </Box>
      </td>
      <td>
        {cell(
          "newest_leaf",
          "Newest leaf",
          asked.leaves[0]?.mm != null ? numberIn(Math.round(asked.leaves[0].mm), "mm") : "",
          "96px",
        )}
      </td>
      <td>
        <Choice
          label={`Grows still, ${asked.code}`}
          value={draft.growing}
          choices={[
            { value: "", label: "not said" },
            { value: "yes", label: "growing" },
            { value: "no", label: "finished" },
          ]}
          onValue={(v) => setDraft({ ...draft, growing: v as "yes" })}
        />
      </td>
      <td>
        <DeskMarks asked={asked} draft={draft} onDraft={setDraft} />
      </td>
      <td>{cell("note", "Note", "", "140px")}</td>
      <td>
        <Button
          minH="44px"
          variant={saved ? "outline" : "solid"}
          loading={pending}
          aria-label={`Save ${asked.code}`}
          onClick={() => void save()}
        >
          {saved ? "Saved" : "Save"}
        </Button>
        {problem && (
          <Text role="alert" color="state.stop" fontSize="sm">
            {problem.message}
          </Text>
        )}
      </td>
    </Box>
  )
}
