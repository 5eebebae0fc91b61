import { Box, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { potNamesQuery } from "../../api/queries"
import { Choose } from "../../ui/EntryRow"
import { Part, type PartProps } from "./Part"
import { kindsQuery, placesQuery } from "./queries"
import type { Scope } from "./values"
import { listed } from "../../ui/format"

const RINGS: [Scope, string, number][] = [
  ["all", "all", 92],
  ["place", "place", 74],
  ["group", "group", 56],
  ["kind", "kind", 38],
  ["plant", "plant", 20],
]

/** Whose plan it is: rings that share their lowest point, the pot; the innermost with a plan rules. */
export function WhoFor({
  values,
  set,
  problem,
  of,
  waiting,
}: PartProps & { of: string; waiting: string[] }) {
  const pots = useQuery(potNamesQuery).data ?? []
  const kinds = useQuery(kindsQuery).data ?? []
  const places = useQuery(placesQuery).data ?? []
  const kept = kinds.filter((k) => k.pots > 0)
  const offered = kept.length > 0 ? kept : kinds
  const choices: Record<Scope, { value: string; label: string }[]> = {
    all: [],
    place: places.map((p) => ({ value: String(p.id), label: p.name })),
    group: [...new Set(offered.map((k) => k.group))].map((g) => ({ value: g, label: g })),
    kind: offered.map((k) => ({ value: k.id, label: k.name })),
    plant: pots.map((p) => ({ value: String(p.id), label: `${p.code} ${p.name}` })),
  }
  const widen = (scope: Scope) => set({ scope, key: choices[scope][0]?.value ?? "" })
  return (
    <Part title="Whose" problem={problem.key}>
      <Box asChild display="block" w="100%" maxW="170px" mx="auto" color="fg">
        <svg viewBox="0 0 200 196" role="img" aria-label={`The plan of ${of}`}>
          {RINGS.map(([scope, , r]) => (
            <g key={scope} onClick={() => widen(scope)} style={{ cursor: "pointer" }}>
              <circle
                cx="100"
                cy={192 - r}
                r={r}
                fill={
                  values.scope === scope
                    ? "var(--chakra-colors-comfort)"
                    : "var(--chakra-colors-bg-panel)"
                }
                stroke="currentColor"
                strokeWidth={values.scope === scope ? 3 : 1}
              />
            </g>
          ))}
          {RINGS.map(([scope, name, r]) => (
            <text
              key={scope}
              x="100"
              y={scope === "plant" ? 176 : 192 - 2 * r + 13}
              textAnchor="middle"
              fontSize="10.5"
              fill="currentColor"
              pointerEvents="none"
            >
              {name}
            </text>
          ))}
        </svg>
      </Box>
      <Choose label="Plan for" value={values.scope} onChange={(v) => widen(v as Scope)}>
        <option value="all">all plants</option>
        <option value="place">a place</option>
        <option value="group">a group of kinds</option>
        <option value="kind">a kind</option>
        <option value="plant">one plant</option>
      </Choose>
      {values.scope !== "all" && (
        <Choose label="Which" value={values.key} onChange={(key) => set({ key })}>
          {!choices[values.scope].some((c) => c.value === values.key) && (
            <option value={values.key}>{of}</option>
          )}
          {choices[values.scope].map((c) => (
            <option key={c.value} value={c.value}>
              {c.label}
            </option>
          ))}
        </Choose>
      )}
      {waiting.length > 0 && (
        <Text fontSize="sm" color="fg.muted">
          A nearer plan rules {listed(waiting, 6)}.
        </Text>
      )}
    </Part>
  )
}
