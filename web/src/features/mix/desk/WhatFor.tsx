import type { Dispatch, SetStateAction } from "react"
import { Button, Flex } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { figure } from "../../../ui/format"
import { Card } from "../../../ui/Page"
import { type Answer, type Draft, fromRecipe, type Page } from "../draft"
import { Choose, EntryRow } from "../../../ui/EntryRow"
import { FeedFields } from "./FeedFields"
import { StrengthFields } from "./StrengthFields"
import { WaterFields } from "./WaterFields"
import { Pots } from "./Pots"
import { SchoolAndRoute } from "./SchoolAndRoute"

type Props = {
  volumeUnit: string
  page: Page
  waters: Schemas["MixWater"][]
  draft: Draft
  onChange: Dispatch<SetStateAction<Draft>>
  answer?: Answer
  problems: Record<string, string>
}

/** Which pots, how much, which water and feed, which school, how strong. */
export function WhatFor({ volumeUnit, page, waters, draft, onChange, answer, problems }: Props) {
  const set = (part: Partial<Draft>) => onChange({ ...draft, ...part })
  return (
    <Card title="What for">
      <Recipes page={page} draft={draft} onChange={onChange} />
      <Pots page={page} draft={draft} onChange={onChange} />
      <FeedFields page={page} draft={draft} onChange={onChange} problems={problems} />
      <WaterFields waters={waters} draft={draft} onChange={onChange} problems={problems} />
      <EntryRow
        label="Volume"
        unit={volumeUnit}
        value={draft.volume}
        onChange={(volume) => set({ volume })}
        problem={problems.volume}
      />
      <Vessels page={page} onChoose={(volume) => set({ volume })} />
      {draft.product_id !== null && (
        <StrengthFields
          draft={draft}
          onChange={onChange}
          dose={answer?.dose.result}
          echo={answer?.echo}
          most={answer?.headroom?.result.nitrogen_mg_L}
          problem={problems.value ?? problems.strength ?? problems.element}
        />
      )}
      <SchoolAndRoute page={page} draft={draft} onChange={onChange} />
      <EntryRow
        label="Made on"
        unit=""
        type="date"
        value={draft.made_on}
        onChange={(made_on) => set({ made_on })}
        problem={problems.made_on}
      />
    </Card>
  )
}

function Recipes({
  page,
  draft,
  onChange,
}: {
  page: Page
  draft: Draft
  onChange: Dispatch<SetStateAction<Draft>>
}) {
  const own = page.recipes.filter((r) => r.named)
  if (own.length === 0) return null
  return (
    <Choose
      label="Recipe"
      value={draft.recipe}
      onChange={(name) => {
        const r = own.find((x) => x.name === name)
        onChange(r ? fromRecipe(draft, r) : { ...draft, recipe: "" })
      }}
    >
      <option value="">none, free hand</option>
      {own.map((r) => (
        <option key={r.id} value={r.name}>
          {r.name}, version {r.version}
        </option>
      ))}
    </Choose>
  )
}

function Vessels({ page, onChoose }: { page: Page; onChoose: (volume: string) => void }) {
  const factor = useSettings()?.display?.volume?.factor ?? 1
  if (page.vessels.length === 0) return null
  return (
    <Flex gap="1.5" wrap="wrap" mb="2" role="group" aria-label="Vessels">
      {page.vessels.map((v) => (
        <Button
          key={v.id}
          size="sm"
          variant="outline"
          minH="40px"
          onClick={() => onChoose(figure(v.volume_L * factor, 3))}
        >
          {v.name}
        </Button>
      ))}
    </Flex>
  )
}
