import { Box, Button, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { useOptions, useSettings } from "../../../api/queries"
import { figure } from "../../../ui/format"
import { Card } from "../../../ui/Page"
import { type Answer, type Draft, fromRecipe, type Page, type Route } from "../draft"
import { Choose, Entry } from "./Entry"
import { FeedFields } from "./FeedFields"
import { StrengthFields } from "./StrengthFields"
import { WaterFields } from "./WaterFields"

type Props = { volumeUnit: string; page: Page; waters: Schemas["MixWater"][]; draft: Draft; onChange: (d: Draft) => void; answer?: Answer; problems: Record<string, string> }

/** Which pots, how much, which water and feed, which school, how strong. */
export function WhatFor({ volumeUnit, page, waters, draft, onChange, answer, problems }: Props) {
  const set = (part: Partial<Draft>) => onChange({ ...draft, ...part })
  return (
    <Card title="What for">
      <Recipes page={page} draft={draft} onChange={onChange} />
      <Pots page={page} draft={draft} onChange={onChange} />
      <FeedFields page={page} draft={draft} onChange={onChange} problems={problems} />
      <WaterFields waters={waters} draft={draft} onChange={onChange} problems={problems} />
      <Entry label="Volume" unit={volumeUnit} value={draft.volume} onChange={(volume) => set({ volume })} problem={problems.volume} />
      <Vessels page={page} onChoose={(volume) => set({ volume })} />
      {draft.product_id !== null && <StrengthFields draft={draft} onChange={onChange} dose={answer?.dose.result} echo={answer?.echo} most={answer?.headroom?.result.nitrogen_mg_L} problem={problems.value ?? problems.strength ?? problems.element} />}
      <SchoolAndRoute page={page} draft={draft} onChange={onChange} />
    </Card>
  )
}

function Recipes({ page, draft, onChange }: { page: Page; draft: Draft; onChange: (d: Draft) => void }) {
  const own = page.recipes.filter((r) => r.named)
  if (own.length === 0) return null
  return (
    <Choose label="Recipe" value={draft.recipe} onChange={(name) => { const r = own.find((x) => x.name === name); onChange(r ? fromRecipe(draft, r) : { ...draft, recipe: "" }) }}>
      <option value="">none, free hand</option>
      {own.map((r) => <option key={r.id} value={r.name}>{r.name}, version {r.version}</option>)}
    </Choose>
  )
}

function Vessels({ page, onChoose }: { page: Page; onChoose: (volume: string) => void }) {
  const factor = useSettings()?.display?.volume?.factor ?? 1
  if (page.vessels.length === 0) return null
  return (
    <Flex gap="1.5" wrap="wrap" mb="2" role="group" aria-label="Vessels">
      {page.vessels.map((v) => <Button key={v.id} size="sm" variant="outline" minH="40px" onClick={() => onChoose(figure(v.volume_L * factor, 3))}>{v.name}</Button>)}
    </Flex>
  )
}

function SchoolAndRoute({ page, draft, onChange }: { page: Page; draft: Draft; onChange: (d: Draft) => void }) {
  const routes = useOptions()?.feed_routes ?? ["root"]
  const school = page.schools.find((s) => s.school.id === draft.school_id)?.school
  const follow = (id: string) => {
    const s = page.schools.find((x) => x.school.id === id)?.school
    onChange({ ...draft, school_id: id || null, ...(s ? { route: s.route as Route, ...(s.n_mg_L > 0 ? { strength: "nitrogen" as const, value: String(s.n_mg_L) } : {}) } : {}) })
  }
  return (
    <Box mt="3">
      <Choose label="School" value={draft.school_id ?? ""} onChange={follow}>
        <option value="">none, my own way</option>
        {page.schools.map((s) => <option key={s.school.id} value={s.school.id}>{s.school.name}{s.edited ? " (mine)" : ""}</option>)}
      </Choose>
      {school && <Text fontSize="sm" color="fg.muted" mt="-1.5" mb="2">{school.definition} {school.spray_mL ? `About ${school.spray_mL} mL a plant, ${school.when}. ` : ""}In favour: {school.in_favour} Against: {school.against}</Text>}
      <Choose label="Route" value={draft.route} onChange={(v) => onChange({ ...draft, route: v as Route })}>
        {routes.map((r) => <option key={r}>{r}</option>)}
      </Choose>
    </Box>
  )
}

function Pots({ page, draft, onChange }: { page: Page; draft: Draft; onChange: (d: Draft) => void }) {
  const factor = useSettings()?.display?.volume?.factor ?? 1
  if (page.pots.length === 0) return null
  const toggle = (id: number) => {
    const ids = draft.pot_ids.includes(id) ? draft.pot_ids.filter((i) => i !== id) : [...draft.pot_ids, id]
    const needed = page.pots.filter((p) => ids.includes(p.id)).reduce((sum, p) => sum + p.volume_L, 0) * factor
    onChange({ ...draft, pot_ids: ids, ...(needed > 0 && draft.route !== "leaf" ? { volume: String(Math.ceil(needed * 10) / 10) } : {}) })
  }
  const chosen = page.pots.filter((p) => draft.pot_ids.includes(p.id))
  return (
    <Box as="fieldset" mb="3" minW="0">
      <Text as="legend" fontSize="sm" color="fg.muted" mb="1">For which pots</Text>
      <Flex wrap="wrap" gap="1.5" maxH="138px" overflowY="auto" tabIndex={0} role="group" aria-label="Pots to choose">
        {page.pots.map((p) => {
          const on = draft.pot_ids.includes(p.id)
          return <Button key={p.id} type="button" size="sm" minH="40px" variant={on ? "solid" : "outline"} aria-pressed={on} title={p.held || p.name} onClick={() => toggle(p.id)}>{p.code}{p.held ? " · held" : ""}</Button>
        })}
      </Flex>
      {chosen.map((p) => (p.held || !p.feeds_at_root) && (
        <Text key={p.id} color="state.caution" fontSize="sm" mt="1">{p.code}: {p.held || (draft.route === "leaf" ? "never at the root; on the leaf only." : "is not fed at the root. Choose the leaf as route.")}</Text>
      ))}
    </Box>
  )
}
