import { Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { Card } from "../../ui/Page"
import { Lane } from "./Lane"

/** The coming twelve weeks of up to three pots, and of the first under other plans. */
export function Weeks({ page }: { page: Schemas["PlanPreview"] }) {
  const first = page.pots[0]
  return (
    <Card title="The next twelve weeks">
      {page.pots.length === 0 && <Text color="fg.muted">No pot is in it now.</Text>}
      {page.pots.map((p) => (
        <Lane
          key={p.pot_id}
          today={page.today}
          ahead={p.ahead}
          name={`${p.code} ${p.name}`}
          line={p.rules ? "ruled by this plan" : `ruled by ${p.ruled_by}: not moved`}
        />
      ))}
      {first && page.beside.length > 0 && (
        <>
          <Text fontWeight="semibold" mt="4">
            {first.code} under other plans
          </Text>
          {page.beside.map((b) => (
            <Lane key={b.name} today={page.today} ahead={b} name={b.name} line="" />
          ))}
        </>
      )}
      <Text fontSize="sm" color="fg.muted" mt="2">
        Bar: a feed, its height the share of the strength. Ring: plain water. Grey: held. Triangle:
        a leaf spray.
      </Text>
    </Card>
  )
}
