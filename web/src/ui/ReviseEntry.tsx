import { Button, Field, Flex, Input } from "@chakra-ui/react"
import { type FormEvent, useState } from "react"
import { type Entry, sendAgain } from "../api/outbox"
import { parted } from "./typed"

// what a hand at the bench enters; ids and choices are left to the page they came from
const FIELDS: Record<string, string> = {
  on: "Date",
  made_on: "Date",
  volume: "Amount",
  value: "Reading or strength",
  runoff_volume: "Runoff",
  runoff_ec: "Runoff reading",
  note: "Note",
}
const given = (entry: Entry) => Object.keys(FIELDS).filter((name) => name in entry.body)

const typedAs = (entry: Entry, name: string) =>
  name === "note"
    ? { text: String(entry.body[name] ?? ""), unit: "", tail: "" }
    : parted(String(entry.body[name] ?? ""))

/** Whether an entry holds anything that can be typed anew. */
export const canBeEdited = (entry: Entry) => given(entry).length > 0

/** The typed values of an entry that was not taken, to be mended and sent again. */
export function ReviseEntry({ entry, onClose }: { entry: Entry; onClose: () => void }) {
  const [values, setValues] = useState(() =>
    Object.fromEntries(given(entry).map((name) => [name, typedAs(entry, name).text])),
  )
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const changes = Object.entries(values).map(([name, text]) => [
      name,
      text.trim() === "" && name !== "note" ? null : text + typedAs(entry, String(name)).tail,
    ])
    onClose()
    void sendAgain(entry.key, Object.fromEntries(changes))
  }
  return (
    <form onSubmit={submit} aria-label={`Edit ${entry.title}`}>
      <Flex gap="2" mt="1" wrap="wrap" align="end">
        {given(entry).map((name) => (
          <Field.Root key={name} w="160px">
            <Field.Label>
              {[FIELDS[name], typedAs(entry, name).unit].filter(Boolean).join(", ")}
            </Field.Label>
            <Input
              type={name === "on" || name === "made_on" ? "date" : "text"}
              value={values[name]}
              minH="44px"
              bg="bg.panel"
              onChange={(e) => setValues({ ...values, [name]: e.target.value })}
            />
          </Field.Root>
        ))}
        <Button type="submit" minH="44px">
          Send again
        </Button>
        <Button type="button" minH="44px" variant="ghost" onClick={onClose}>
          Cancel
        </Button>
      </Flex>
    </form>
  )
}
