import { NativeSelect } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { peopleQuery } from "../../api/queries"

const KEPT = "fenwa-who"

/** The name this device pours under; empty: nobody said. */
export function useWho(): [string, (name: string) => void] {
  const [who, setWho] = useState(() => localStorage.getItem(KEPT) ?? "")
  return [
    who,
    (name) => {
      localStorage.setItem(KEPT, name)
      setWho(name)
    },
  ]
}

/** Who pours, from the short list; nothing is shown while the list is empty. */
export function WhoPours({ who, onWho }: { who: string; onWho: (name: string) => void }) {
  const people = useQuery(peopleQuery).data ?? []
  if (people.length === 0) return null
  return (
    <NativeSelect.Root size="sm" w="auto" maxW="140px">
      <NativeSelect.Field
        aria-label="Who pours"
        value={people.some((p) => p.name === who) ? who : ""}
        onChange={(e) => onWho(e.target.value)}
      >
        <option value="">who pours</option>
        {people.map((p) => (
          <option key={p.id} value={p.name}>
            {p.name}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator aria-hidden />
    </NativeSelect.Root>
  )
}
