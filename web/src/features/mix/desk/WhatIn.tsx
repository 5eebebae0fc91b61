import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { figure } from "../../../ui/format"
import { Card } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import type { Answer, Draft } from "../draft"
import { BenchLine } from "./BenchLine"
import { CanLayers, type Layer } from "./CanLayers"

type Props = { draft: Draft; waters: Schemas["MixWater"][]; answer?: Answer; problem: string | null }

/** What goes in: the can drawn, the amounts, and the steps for the bench. */
export function WhatIn({ draft, waters, answer, problem }: Props) {
  const settings = useSettings()
  const unit = settings?.volume_unit ?? "L"
  const d = answer?.dose.result
  const water = waters.find((w) => w.id === draft.water_id)
  const layers = layersOf(draft, waters, answer)
  const ec = d?.ec_total_uS_cm ?? water?.ec25_uS_cm ?? 20
  return (
    <Card title="What in">
      {problem && <Text role="alert" color="state.stop" mb="3">{problem}</Text>}
      <CanLayers layers={layers} volume={`${draft.volume} ${unit}`} ec={ec} label={`The can: ${layers.map((l) => `${l.name} ${l.line}`).join("; ")}`} />
      {!d && draft.product_id === null && <Text>{`${draft.volume} ${unit} ${water?.name ?? ""}, nothing added`}</Text>}
      {d && answer && (
        <>
          <Amounts answer={answer} />
          <Weighing d={d} measures={answer.measures} />
          <Box as="ol" pl="5" listStyleType="decimal" mt="3" borderTopWidth="1px" pt="3" lineHeight="1.75" aria-label="Steps">
            {answer.bench.map((s, i) => <li key={i}><BenchLine step={s} /></li>)}
          </Box>
          <Text mt="2" fontWeight="semibold" color={answer.clear.result.verdict === "clear" ? "state.good" : "state.stop"}>{answer.clear.result.sentence}</Text>
        </>
      )}
      <Text fontSize="sm" color="fg.muted" mt="3">The product’s label and local rules come first. Label the can; keep feed from children, pets and food vessels.</Text>
    </Card>
  )
}

function layersOf(draft: Draft, waters: Schemas["MixWater"][], answer?: Answer): Layer[] {
  const fills = answer?.bench.filter((s) => s.act === "half fill") ?? []
  const whole = fills.reduce((a, s) => a + s.amount, 0) || 1
  const plain = waters.find((w) => w.id === draft.water_id)
  const water = fills.length
    ? fills.map((s) => ({ name: s.what, line: fills.length > 1 ? `${figure((100 * s.amount) / whole, 3)} % of the can` : `${Math.round(plain?.ec25_uS_cm ?? 0)} µS/cm alone`, share: (0.92 * s.amount) / whole, ec: 30 }))
    : [{ name: plain?.name ?? "Water", line: `${Math.round(plain?.ec25_uS_cm ?? 0)} µS/cm`, share: 0.92, ec: 30 }]
  const feeds = (answer?.bench ?? []).filter((s) => s.act === "weigh" || s.act === "measure" || s.act === "draw")
  return [...water, ...feeds.map((s) => ({ name: s.what, line: `${figure(s.amount)} ${s.unit}`, share: 0.05, ec: 2400, thin: true }))]
}

function Amounts({ answer }: { answer: Answer }) {
  const d = answer.dose.result
  const here = { kind: "here" as const, working: answer.dose.working }
  return (
    <Box mt="2">
      <Text fontSize="2xl" fontWeight="semibold" lineHeight="1.2">
        <Quantity label="Amount to weigh" value={d.amount_mL ?? d.amount_g} kind={d.amount_mL === null ? "mass" : "plain"} unit={d.amount_mL === null ? undefined : "mL"} working={here} />
      </Text>
      <Text color="fg.muted">{d.parts[0]?.name}, {figure(d.dose_mL_L ?? d.dose_g_L)} {d.dose_mL_L === null ? "g" : "mL"} a litre</Text>
    </Box>
  )
}

const how = (working: Schemas["Working"] | null) => (working ? { kind: "here" as const, working } : undefined)

function Weighing({ d, measures }: { d: Schemas["Dose"]; measures: string[] }) {
  const off = d.parts.filter((p) => !p.weighable)
  return (
    <Box mt="2">
      <Text>Your scale: <b>{figure(d.rounded_amount)} {d.rounded_unit}</b>, {figure(d.rounding_error_pct, 2)} % off{measures.length ? `; ${measures.join("; ")}` : ""}.</Text>
      {off.length > 0 && <Text color="state.caution">Too little for it to be sure of: {off.map((p) => p.name).join(", ")}.</Text>}
      {d.stock && (
        <Box mt="1">
          <Text fontWeight="semibold">Go through a stock</Text>
          <Text>Weigh <Quantity label="Weigh into the bottle" kind="mass" value={d.stock.weigh_g} working={how(d.stock_working)} /> into {d.stock.bottle_mL} mL of {d.stock.filled_with} ({figure(d.stock.concentration_g_L)} g/L), draw <Quantity label="Draw of the stock" value={d.stock.draw_mL} unit="mL" working={how(d.stock_working)} /> for this can: {figure(d.stock.error_pct, 2)} % (SD) off. One bottle makes {figure(d.stock.lasts_L)} L and keeps {d.stock.keeps_weeks} weeks.</Text>
        </Box>
      )}
      {d.by_steps && (
        <Box mt="1">
          <Text fontWeight="semibold">Go through a stock, in steps</Text>
          <Text>Weigh {figure(d.by_steps.mass_g)} g into {d.by_steps.bottle_mL} mL ({figure(d.by_steps.concentration_g_L)} g/L). {d.by_steps.dilution.sentence} <Quantity label="Error through the stock" value={d.by_steps.error_pct} unit="% (SD) off" working={how(d.by_steps.working)} />.</Text>
        </Box>
      )}
      {d.stock_refusal && !d.by_steps && <Text>{d.stock_refusal}</Text>}
    </Box>
  )
}
