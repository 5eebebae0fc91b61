import { Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import type { Schemas } from "../../api/client"
import { remediesQuery, useQuantities } from "../../api/waterQueries"
import { figure } from "../../ui/format"

export function Tests({ water }: { water: Schemas["WaterOut"] }) {
  const labels = useQuantities()
  if (water.tests.length === 0) return null
  return (
    <Text as="span" display="block" color="fg.muted">
      {water.tests
        .slice(0, 8)
        .map(
          (t) =>
            `${labels.find((q) => q.id === t.quantity)?.label ?? t.quantity} ${figure((t.low + t.high) / 2)}`,
        )
        .join(", ")}
    </Text>
  )
}

/** What to do with the waters most groups may not have. */
export function Remedies({ page }: { page: Schemas["WaterPage"] }) {
  const worst = page.waters.filter((w) =>
    page.verdicts.some((v) => v.water_id === w.id && v.word.startsWith("no") && !w.watch.too_old),
  )
  return (
    <>
      {worst.length > 0 && (
        <Text as="h2" fontWeight="semibold" mt="4" mb="1">
          What to do with the others
        </Text>
      )}
      {worst.map((w) => (
        <Remedy key={w.id} water={w} page={page} />
      ))}
    </>
  )
}

function Remedy({ water, page }: { water: Schemas["WaterOut"]; page: Schemas["WaterPage"] }) {
  const remedies = useQuery(remediesQuery(water.id)).data ?? []
  const sentences = [
    ...new Set(
      remedies.filter((r) => r.remedy.action !== "as it is").map((r) => r.remedy.sentence),
    ),
  ]
  const who = (s: string) =>
    remedies
      .filter((r) => r.remedy.sentence === s)
      .map((r) => page.groups.find((g) => g.profile_id === r.profile_id)?.short)
      .join(", ")
  return (
    <Text fontSize="sm" mb="1">
      <b>{water.name}:</b> {sentences.map((s) => `${who(s)}: ${s}`).join(" ")}
    </Text>
  )
}
