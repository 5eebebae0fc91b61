import { Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { type Dispatch, type SetStateAction, useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { forPotsQuery, useSettings } from "../../api/queries"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"
import { BenchPage } from "./BenchPage"
import { WhatComesOut } from "./desk/WhatComesOut"
import { WhatFor } from "./desk/WhatFor"
import { WhatIn } from "./desk/WhatIn"
import { asMade, type Draft, type Page } from "./draft"
import { KeepRecipe } from "./KeepRecipe"
import { usePreview } from "./usePreview"
import { MixHead } from "./MixHead"

type Props = {
  page: Page
  waters: Schemas["MixWater"][]
  draft: Draft
  onDraft: Dispatch<SetStateAction<Draft>>
  onMade: (batch: Schemas["BatchOut"], potIds: number[]) => void
}

/** Three parts side by side, recomputed as values change; the weighing list opens as its own page. */
export function MixDesk({ page, waters, draft, onDraft, onMade }: Props) {
  const [bench, setBench] = useState(false)
  const [naming, setNaming] = useState(false)
  const notice = useNotice()
  const undo = useUndo()
  const unit = useSettings()?.volume_unit ?? "L"
  const preview = usePreview(draft)
  const made = usePress(
    (_: null, key: string) =>
      answer(
        client.POST("/api/batches", {
          params: keyed(key),
          body: asMade(draft, unit, page.today),
        }),
      ),
    (batch) => {
      notice({ text: `${batch.name} is in the log.`, undo: () => undo("batch", batch.id) })
      onMade(batch, draft.pot_ids)
    },
  )
  const feeding = draft.product_id !== null
  const current = feeding && !preview.isError ? preview.data : undefined
  const problems = preview.error ? preview.error.fields() : made.error ? made.error.fields() : {}
  const chosen = page.pots.filter((p) => draft.pot_ids.includes(p.id))
  const forPots = useQuery({ ...forPotsQuery(draft.pot_ids), enabled: chosen.length > 0 })
  const strict = chosen.length > 0 ? forPots.data : undefined
  const title = chosen.length
    ? `A can for ${chosen.length} ${chosen.length === 1 ? "pot" : "pots"}`
    : "A can"
  const make = (
    <Button
      data-new
      minH="48px"
      loading={made.isPending}
      disabled={feeding && !current}
      onClick={() => made.mutate(null)}
    >
      Made it, read the pen
    </Button>
  )
  if (bench && current)
    return (
      <BenchPage answer={current} title={title} onBack={() => setBench(false)}>
        {make}
      </BenchPage>
    )
  return (
    <>
      <MixHead
        title={title}
        strict={strict}
        ready={current !== undefined}
        onName={() => setNaming(!naming)}
        onBench={() => setBench(true)}
      >
        {make}
      </MixHead>
      {naming && (
        <KeepRecipe
          draft={draft}
          onKept={(recipe) => {
            setNaming(false)
            onDraft({ ...draft, recipe })
          }}
          onCancel={() => setNaming(false)}
        />
      )}
      {made.isError && Object.keys(problems).length === 0 && (
        <Text role="alert" color="state.stop" mb="3">
          {made.error.message}
        </Text>
      )}
      <Grid
        templateColumns={{
          base: "minmax(0,1fr)",
          md: "minmax(0,1fr) minmax(0,1fr)",
          xl: "minmax(0,1fr) minmax(0,1.3fr) minmax(0,1.1fr)",
        }}
        gap="4"
        alignItems="start"
      >
        <WhatFor
          volumeUnit={unit}
          page={page}
          waters={waters}
          draft={draft}
          onChange={onDraft}
          answer={current}
          problems={problems}
        />
        <WhatIn
          draft={draft}
          waters={waters}
          answer={current}
          problem={
            preview.error && Object.keys(problems).length === 0 ? preview.error.message : null
          }
        />
        <WhatComesOut
          answer={current}
          water={waters.find((w) => w.id === draft.water_id)}
          ceiling={strict?.ceiling_uS_cm}
          onMost={(value) => onDraft({ ...draft, strength: "nitrogen", value })}
          onAdd={(product_id, dose) =>
            onDraft({ ...draft, recipe: "", also: [...draft.also, { product_id, dose }] })
          }
        />
      </Grid>
      {current && (
        <Button
          mt="4"
          w="100%"
          minH="56px"
          display={{ base: "flex", md: "none" }}
          onClick={() => setBench(true)}
        >
          To the bench: the weighing list
        </Button>
      )}
    </>
  )
}
