import { Box, Button, Flex, Input, NativeSelect, Text } from "@chakra-ui/react"
import { useId } from "react"
import type { Schemas } from "../../api/client"
import { useSettings } from "../../api/queries"
import { figure } from "../../ui/format"
import { Card } from "../../ui/Page"
import type { Draft } from "./MixDesk"
import { StrengthFields } from "./StrengthFields"

type Props = { volumeUnit: string; page: Schemas["MixPage"]; waters: Schemas["MixWater"][]; draft: Draft; onChange: (d: Draft) => void; dose?: Schemas["Dose"]; problems: Record<string, string> }

/** Which pots, how much, which water and feed, how strong. */
export function WhatFor({ volumeUnit, page, waters, draft, onChange, dose, problems }: Props) {
  const settings = useSettings()
  const set = (part: Partial<Draft>) => onChange({ ...draft, ...part })
  const total = (ids: number[]) => page.pots.filter((p) => ids.includes(p.id)).reduce((sum, p) => sum + p.volume_L, 0)
  const toggle = (id: number) => {
    const ids = draft.pot_ids.includes(id) ? draft.pot_ids.filter((i) => i !== id) : [...draft.pot_ids, id]
    const needed = total(ids) * (settings?.display?.volume?.factor ?? 1)
    set({ pot_ids: ids, ...(needed > 0 ? { volume: String(Math.ceil(needed * 10) / 10) } : {}) })
  }
  return (
    <Card title="What for">
      <Choose label="Feed" value={String(draft.product_id ?? "")} onChange={(v) => set({ product_id: v ? Number(v) : null })} problem={problems.product_id}>
        {page.products.map((p) => <option key={p.id} value={p.id}>{p.name}</option>)}
        <option value="">nothing, plain water</option>
      </Choose>
      <Choose label="Base water" value={String(draft.water_id)} onChange={(v) => set({ water_id: Number(v) })} problem={problems.water_id}>
        {waters.map((w) => <option key={w.id} value={w.id}>{w.name}, {figure(Math.round(w.ec25_uS_cm ?? 0), 6)} µS/cm</option>)}
      </Choose>
      <Entry label="Volume" unit={volumeUnit} value={draft.volume} onChange={(volume) => set({ volume })} problem={problems.volume} />
      {draft.product_id !== null && <StrengthFields draft={draft} onChange={onChange} dose={dose} problem={problems.value ?? problems.strength} />}
      {page.pots.length > 0 && (
        <Box as="fieldset" mt="4">
          <Text as="legend" fontWeight="semibold" mb="1.5">For which pots</Text>
          <Flex wrap="wrap" gap="1.5">
            {page.pots.map((p) => {
              const on = draft.pot_ids.includes(p.id)
              return (
                <Button key={p.id} type="button" size="sm" minH="40px" variant={on ? "solid" : "outline"} aria-pressed={on} title={p.held || p.name} onClick={() => toggle(p.id)}>
                  {p.code}{p.held ? " · held" : ""}
                </Button>
              )
            })}
          </Flex>
          {page.pots.filter((p) => draft.pot_ids.includes(p.id) && p.held).map((p) => <Text key={p.id} color="state.caution" mt="1">{p.code}: {p.held}</Text>)}
        </Box>
      )}
    </Card>
  )
}

function Choose({ label, value, onChange, problem, children }: { label: string; value: string; onChange: (v: string) => void; problem?: string; children: React.ReactNode }) {
  const id = useId()
  return (
    <Box mb="2.5">
      <Text asChild fontSize="sm" color="fg.muted"><label htmlFor={id}>{label}</label></Text>
      <NativeSelect.Root>
        <NativeSelect.Field id={id} value={value} onChange={(e) => onChange(e.target.value)} minH="44px">{children}</NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
      {problem && <Text role="alert" color="state.stop" fontSize="sm">{problem}</Text>}
    </Box>
  )
}

/** A number with its unit at the right, in one row. */
export function Entry({ label, unit, value, onChange, problem, active, onFocus }: { label: string; unit: string; value: string; onChange: (v: string) => void; problem?: string; active?: boolean; onFocus?: () => void }) {
  const id = useId()
  return (
    <Box mb="1.5">
      <Flex align="center" gap="2" borderWidth={active ? "2px" : "1px"} borderColor={active ? "fg" : "border"} borderRadius="md" pl="3" minH="46px">
        <Text asChild flex="1"><label htmlFor={id}>{label}</label></Text>
        <Input id={id} value={value} inputMode="decimal" autoComplete="off" aria-invalid={problem ? true : undefined} aria-describedby={problem ? `${id}-p` : undefined} onFocus={onFocus} onChange={(e) => onChange(e.target.value)} w="92px" textAlign="right" fontWeight="semibold" fontSize="lg" variant="flushed" borderColor="transparent" />
        <Text color="fg.muted" minW="58px" fontSize="sm">{unit}</Text>
      </Flex>
      {problem && <Text id={`${id}-p`} role="alert" color="state.stop" fontSize="sm">{problem}</Text>}
    </Box>
  )
}
