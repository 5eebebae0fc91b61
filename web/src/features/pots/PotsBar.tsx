import { Button, Flex, Input } from "@chakra-ui/react"
import { useEffect, useRef } from "react"
import { Link, useNavigate, useSearchParams } from "react-router"
import type { Schemas } from "../../api/client"
import { firstFound } from "../../api/queries"
import type { Open } from "./Screen"

const VIEWS = [
  ["rails", "Rails"],
  ["table", "Table"],
  ["shelves", "Shelves"],
] as const

type Props = {
  find: string
  onFind: (find: string) => void
  view: string
  picked: Schemas["PotRow"][]
  onOpen: (open: Open) => void
}

/** Finding a pot, how pots are shown, and what is done with those that are ticked. */
export function PotsBar({ find, onFind, view, picked, onOpen }: Props) {
  const [params, setParams] = useSearchParams()
  const search = useRef<HTMLInputElement>(null)
  const navigate = useNavigate()
  useEffect(() => {
    if (params.has("find")) search.current?.focus()
  }, [params])
  const openFirst = () =>
    void firstFound(find).then((first) => first && navigate(`/pots/${first.id}`))
  return (
    <Flex gap="3" mb="3" wrap="wrap" align="center">
      <Input
        ref={search}
        type="search"
        aria-label="Find a pot"
        placeholder="Find by code, name, kind, place or tag"
        value={find}
        onChange={(e) => onFind(e.target.value)}
        onKeyDown={(e) => e.key === "Enter" && openFirst()}
        bg="bg.panel"
        maxW="420px"
        minH="44px"
      />
      <Flex role="group" aria-label="How pots are shown" gap="1">
        {VIEWS.map(([key, label]) => (
          <Button
            key={key}
            size="sm"
            minH="44px"
            variant={view === key ? "solid" : "outline"}
            aria-pressed={view === key}
            onClick={() => setParams({ view: key }, { replace: true })}
          >
            {label}
          </Button>
        ))}
      </Flex>
      {view === "table" && picked.length > 0 && (
        <Flex gap="2">
          <Button
            minH="44px"
            onClick={() => onOpen(picked.length === 1 ? (picked[0]?.id ?? null) : "change")}
          >
            Change {picked.length}
          </Button>
          {picked.length > 1 && (
            <Button minH="44px" variant="outline" onClick={() => onOpen("merge")}>
              Put together
            </Button>
          )}
          <Button asChild minH="44px" variant="outline">
            <Link to={`/pots/labels?ids=${picked.map((p) => p.id).join(",")}`}>Labels</Link>
          </Button>
        </Flex>
      )}
    </Flex>
  )
}
