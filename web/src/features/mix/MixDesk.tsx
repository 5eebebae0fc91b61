import { Button, Grid, Text } from "@chakra-ui/react"
import { keepPreviousData, useQuery } from "@tanstack/react-query"
import { useDeferredValue, useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useSettings } from "../../api/queries"
import { PageHead } from "../../ui/Page"
import { usePress } from "../../ui/useEntryForm"
import { WhatComesOut } from "./WhatComesOut"
import { WhatFor } from "./WhatFor"
import { WhatIn } from "./WhatIn"

export type Draft = { product_id: number | null; water_id: number; pot_ids: number[]; volume: string; strength: NonNullable<Schemas["DoseIn"]["strength"]>; value: string }

type Props = { page: Schemas["MixPage"]; waters: Schemas["MixWater"][]; onMade: (batch: Schemas["BatchOut"], potIds: number[]) => void }

/** Three parts side by side, recomputed as values change. */
export function MixDesk({ page, waters, onMade }: Props) {
  const first = page.products.find((p) => p.elements.N_mg_g > 0)
  const [draft, setDraft] = useState<Draft>({ product_id: first?.id ?? null, water_id: waters[0]?.id ?? 0, pot_ids: [], volume: "3", strength: "nitrogen", value: "40" })
  const settings = useSettings()
  const volume_unit = settings?.volume_unit ?? "L"
  const asked = useDeferredValue(draft)
  const feeding = asked.product_id !== null
  const dose = useQuery({
    queryKey: ["dose", asked, volume_unit, settings?.scale_step_g, settings?.syringe_step_mL],
    queryFn: () => answer(client.POST("/api/mix/dose", { body: { ...asked, volume_unit } })),
    enabled: feeding,
    placeholderData: keepPreviousData,
  })
  const made = usePress(
    (_: null, key: string) => answer(client.POST("/api/batches", { params: keyed(key), body: { ...draft, volume_unit, made_on: page.today, name: "" } })),
    (batch) => onMade(batch, draft.pot_ids),
  )
  const current = feeding && !dose.isError ? dose.data : undefined
  const problems = dose.error ? dose.error.fields() : made.error ? made.error.fields() : {}
  const water = waters.find((w) => w.id === draft.water_id)
  const chosen = page.pots.filter((p) => draft.pot_ids.includes(p.id))
  const title = chosen.length ? `A can for ${chosen.length} ${chosen.length === 1 ? "pot" : "pots"}` : "A can"
  const strict = strictest(chosen)
  return (
    <>
      <PageHead title={title} line={strict ? `The strictest of them, ${strict.code} ${strict.name}, takes a feed up to ${strict.feed_ceiling_uS_cm} µS/cm.` : "Choose the pots, and their strictest ceiling is kept."}>
        <Button data-new minH="48px" loading={made.isPending} disabled={feeding && !current} onClick={() => made.mutate(null)}>Made it, read the pen</Button>
      </PageHead>
      {made.isError && Object.keys(problems).length === 0 && <Text role="alert" color="state.stop" mb="3">{made.error.message}</Text>}
      <Grid templateColumns={{ base: "minmax(0,1fr)", md: "minmax(0,1fr) minmax(0,1fr)", xl: "minmax(0,1fr) minmax(0,1.4fr) minmax(0,1.1fr)" }} gap="4" alignItems="start">
        <WhatFor volumeUnit={volume_unit} page={page} waters={waters} draft={draft} onChange={setDraft} dose={current?.result} problems={problems} />
        <WhatIn volumeUnit={volume_unit} draft={draft} water={water} product={page.products.find((p) => p.id === draft.product_id)} dose={current} problem={dose.error && Object.keys(problems).length === 0 ? dose.error.message : null} />
        <WhatComesOut dose={current} water={water} ceiling={strict} />
      </Grid>
    </>
  )
}

/** The pot that takes the weakest feed, for the heading; the server decides for the dose itself. */
function strictest(pots: Schemas["MixPot"][]) {
  return pots.filter((p) => p.feed_ceiling_uS_cm !== null).toSorted((a, b) => (a.feed_ceiling_uS_cm ?? 0) - (b.feed_ceiling_uS_cm ?? 0))[0]
}
