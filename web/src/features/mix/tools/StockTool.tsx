import { Mind } from "../../../ui/Mind"
import { Button } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { useNotice } from "../../../ui/noticeContext"
import { usePress } from "../../../ui/usePress"
import { useLiveForm } from "../../../ui/useLiveForm"
import { soluble } from "../draft"
import { BottleLabels } from "./BottleLabels"
import { Columns } from "./Columns"
import type { ToolProps } from "./Panels"
import { Bottles, Clear, Ratio } from "./StockAnswer"
import { type Values, type Found, feedsOf, names } from "./stock"
import { StockAsked } from "./StockAsked"

/** A stock in one bottle or in A and B, by syringe or by injector, with its labels. */
export function StockTool({ page, waters, draft }: ToolProps) {
  const unit = useSettings()?.volume_unit ?? "L"
  const notice = useNotice()
  const [labels, setLabels] = useState(false)
  const salts = soluble(page)
  const first = [
    salts.find((p) => p.label.formula.startsWith("Ca(NO3)")),
    salts.find((p) => p.label.formula.startsWith("MgSO4")),
    salts.find((p) => p.label.formula === "KH2PO4"),
  ]
  const stockBody = (v: Values): Schemas["StockIn"] => ({
    water_id: Number(v.water_id),
    feeds: feedsOf(v),
    volume: v.volume,
    volume_unit: unit,
    draw_mL_per_L: v.draw,
    storage_C: v.cold,
  })
  const {
    form,
    values,
    answer: found,
    problem,
  } = useLiveForm<Values, Found>(
    `stock-${unit}`,
    {
      water_id: String(draft.water_id),
      p: [...first.map((p) => String(p?.id ?? "")), ""],
      d: ["0.8", "0.4", "0.15", ""],
      volume: "5",
      way: "draw",
      draw: "10",
      ratio: "100",
      meaning: "1 in n",
      tank: "5",
      cold: "10",
    },
    async (v) => {
      if (v.way === "draw")
        return {
          kind: "stock",
          answer: await answer(client.POST("/api/mix/stock", { body: stockBody(v) })),
        }
      const feeds = feedsOf(v)
      const shared = { water_id: Number(v.water_id), feeds, storage_C: v.cold }
      const made = await answer(
        client.POST("/api/mix/injector", {
          body: { ...shared, ratio: v.ratio, meaning: v.meaning, tank_L: v.tank },
        }),
      )
      return {
        kind: "ratio",
        answer: made,
        clear: await answer(
          client.POST("/api/mix/clear", {
            body: { ...shared, times: made.result.litres_per_litre },
          }),
        ),
      }
    },
    (v) => feedsOf(v).length > 0,
  )
  const keep = usePress(
    (v: Values, key: string) =>
      answer(client.POST("/api/mix/bottles", { params: keyed(key), body: stockBody(v) })),
    () => {
      notice({ text: "The bottles are saved; print their labels." })
      setLabels(true)
    },
  )
  const choices = [
    { value: "", label: "nothing" },
    ...salts.map((p) => ({ value: String(p.id), label: p.name })),
  ]
  return (
    <>
      <Columns
        problem={problem ?? (keep.isError ? keep.error.message : null)}
        asked={
          <>
            <StockAsked form={form} values={values} choices={choices} waters={waters} unit={unit} />
          </>
        }
      >
        {found?.kind === "stock" && (
          <>
            <Clear clear={found.answer.clear} names={names(values, salts)} />
            <Bottles stock={found.answer.stock} />
            <Mind of="stock" />
            <Button
              mt="3"
              minH="48px"
              loading={keep.isPending}
              onClick={() => keep.mutate(form.getValues())}
            >
              Made: save the labels
            </Button>
          </>
        )}
        {found?.kind === "ratio" && (
          <>
            <Clear clear={found.clear} names={names(values, salts)} />
            <Ratio injector={found.answer} />
          </>
        )}
      </Columns>
      <Button
        mt="4"
        variant="outline"
        minH="44px"
        aria-expanded={labels}
        onClick={() => setLabels(!labels)}
      >
        Bottle labels
      </Button>
      {labels && <BottleLabels />}
    </>
  )
}
