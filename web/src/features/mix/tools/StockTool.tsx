import { Box, Button, Flex } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { useNotice } from "../../../ui/noticeContext"
import { usePress } from "../../../ui/useEntryForm"
import { useLiveForm } from "../../../ui/useLiveForm"
import { soluble } from "../draft"
import { BottleLabels } from "./BottleLabels"
import { Columns, FieldGrid, waterChoices } from "./Columns"
import type { ToolProps } from "./Panels"
import { Bottles, Clear, Ratio } from "./StockAnswer"

type Values = { water_id: string; p: string[]; d: string[]; volume: string; way: "draw" | "ratio"; draw: string; ratio: string; meaning: "1 in n" | "1 plus n"; tank: string; cold: string }
const PLACES = [0, 1, 2, 3] as const
type Found = { kind: "stock"; answer: Schemas["StockAnswer"] } | { kind: "ratio"; answer: Schemas["Computed_Injector_"]; clear: Schemas["Computed_Clarity_"] }

const feedsOf = (v: Values) => PLACES.flatMap((i) => (v.p[i] && v.d[i] ? [{ product_id: Number(v.p[i]), dose: v.d[i] }] : []))

/** A stock in one bottle or in A and B, by syringe or by injector, with its labels. */
export function StockTool({ page, waters, draft }: ToolProps) {
  const unit = useSettings()?.volume_unit ?? "L"
  const notice = useNotice()
  const [labels, setLabels] = useState(false)
  const salts = soluble(page)
  const first = [salts.find((p) => p.label.formula.startsWith("Ca(NO3)")), salts.find((p) => p.label.formula.startsWith("MgSO4")), salts.find((p) => p.label.formula === "KH2PO4")]
  const stockBody = (v: Values): Schemas["StockIn"] => ({ water_id: Number(v.water_id), feeds: feedsOf(v), volume: v.volume, volume_unit: unit, draw_mL_per_L: v.draw, storage_C: v.cold })
  const { form, values, answer: found, problem } = useLiveForm<Values, Found>(
    `stock-${unit}`,
    { water_id: String(draft.water_id), p: [...first.map((p) => String(p?.id ?? "")), ""], d: ["0.8", "0.4", "0.15", ""], volume: "5", way: "draw", draw: "10", ratio: "100", meaning: "1 in n", tank: "5", cold: "10" },
    async (v) => {
      if (v.way === "draw") return { kind: "stock", answer: await answer(client.POST("/api/mix/stock", { body: stockBody(v) })) }
      const feeds = feedsOf(v)
      const shared = { water_id: Number(v.water_id), feeds, storage_C: v.cold }
      const made = await answer(client.POST("/api/mix/injector", { body: { ...shared, ratio: v.ratio, meaning: v.meaning, tank_L: v.tank } }))
      return { kind: "ratio", answer: made, clear: await answer(client.POST("/api/mix/clear", { body: { ...shared, times: made.result.litres_per_litre } })) }
    },
    (v) => feedsOf(v).length > 0,
  )
  const keep = usePress((v: Values, key: string) => answer(client.POST("/api/mix/bottles", { params: keyed(key), body: stockBody(v) })), () => {
    notice({ text: "The bottles are kept; print their labels." })
    setLabels(true)
  })
  const choices = [{ value: "", label: "nothing" }, ...salts.map((p) => ({ value: String(p.id), label: p.name }))]
  return (
    <>
      <Columns problem={problem ?? (keep.isError ? keep.error.message : null)} asked={
        <>
          {PLACES.map((i) => (
            <Flex key={i} gap="3" mb="2">
              <Box flex="2" minW="0"><SelectField form={form} name={`p.${i}`} label={`Product ${i + 1}`} choices={choices} /></Box>
              <Box flex="1" minW="0"><TextField form={form} name={`d.${i}`} label="In the can" unit="g/L" numeric /></Box>
            </Flex>
          ))}
          <FieldGrid>
            <SelectField form={form} name="way" label="Drawn by" choices={[{ value: "draw", label: "syringe" }, { value: "ratio", label: "injector" }]} />
            {values.way === "draw" ? <TextField form={form} name="draw" label="Draw" unit="mL in a litre" numeric /> : <TextField form={form} name="ratio" label="Ratio, n" numeric />}
            {values.way === "ratio" && <SelectField form={form} name="meaning" label="It means" choices={[{ value: "1 in n", label: "1 part in n" }, { value: "1 plus n", label: "1 part + n parts" }]} />}
            {values.way === "draw" ? <TextField form={form} name="volume" label="For a can of" unit={unit} numeric /> : <TextField form={form} name="tank" label="Tank" unit="L" numeric />}
            <SelectField form={form} name="water_id" label="Filled with" choices={waterChoices(waters)} />
            <TextField form={form} name="cold" label="Coldest store" unit="°C" numeric />
          </FieldGrid>
        </>
      }>
        {found?.kind === "stock" && <><Clear clear={found.answer.clear} names={names(values, salts)} /><Bottles stock={found.answer.stock} /><Button mt="3" minH="48px" loading={keep.isPending} onClick={() => keep.mutate(form.getValues())}>Made them, keep the labels</Button></>}
        {found?.kind === "ratio" && <><Clear clear={found.clear} names={names(values, salts)} /><Ratio injector={found.answer} /></>}
      </Columns>
      <Button mt="4" variant="outline" minH="44px" aria-expanded={labels} onClick={() => setLabels(!labels)}>Bottle labels</Button>
      {labels && <BottleLabels />}
    </>
  )
}

const names = (v: Values, shelf: Schemas["ProductOut"][]) => feedsOf(v).map((f) => shelf.find((p) => p.id === f.product_id)?.name ?? "")
