import { Box, Text } from "@chakra-ui/react"
import { useOptions } from "../../../api/queries"
import { type Draft, type Page, type Route } from "../draft"
import { Choose } from "../../../ui/EntryRow"

export function SchoolAndRoute({
  page,
  draft,
  onChange,
}: {
  page: Page
  draft: Draft
  onChange: (d: Draft) => void
}) {
  const routes = useOptions()?.feed_routes ?? ["root"]
  const school = page.schools.find((s) => s.school.id === draft.school_id)?.school
  const follow = (id: string) => {
    const s = page.schools.find((x) => x.school.id === id)?.school
    onChange({
      ...draft,
      school_id: id || null,
      ...(s
        ? {
            route: s.route as Route,
            ...(s.n_mg_L > 0 ? { strength: "nitrogen" as const, value: String(s.n_mg_L) } : {}),
          }
        : {}),
    })
  }
  return (
    <Box mt="3">
      <Choose label="School" value={draft.school_id ?? ""} onChange={follow}>
        <option value="">none, my own way</option>
        {page.schools.map((s) => (
          <option key={s.school.id} value={s.school.id}>
            {s.school.name}
            {s.edited ? " (mine)" : ""}
          </option>
        ))}
      </Choose>
      {school && (
        <Text fontSize="sm" color="fg.muted" mt="-1.5" mb="2">
          {school.definition}{" "}
          {school.spray_mL ? `About ${school.spray_mL} mL a plant, ${school.when}. ` : ""}In favour:{" "}
          {school.in_favour} Against: {school.against}
        </Text>
      )}
      <Choose
        label="Route"
        value={draft.route}
        onChange={(v) => onChange({ ...draft, route: v as Route })}
      >
        {routes.map((r) => (
          <option key={r}>{r}</option>
        ))}
      </Choose>
    </Box>
  )
}
