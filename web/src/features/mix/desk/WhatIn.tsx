import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { figure, waterReads, amountOf } from "../../../ui/format"
import { Card } from "../../../ui/Page"
import type { Answer, Draft } from "../draft"
import { BenchLine } from "./BenchLine"
import { CanLayers, type Layer } from "./CanLayers"
import { Weighing, Amounts } from "./Weighing"

type Props = {
  draft: Draft
  waters: Schemas["MixWater"][]
  answer?: Answer
  problem: string | null
}

/** What goes in: the can drawn, the amounts, and the steps for the bench. */
export function WhatIn({ draft, waters, answer, problem }: Props) {
  const settings = useSettings()
  const unit = settings?.volume_unit ?? "L"
  const d = answer?.dose.result
  const water = waters.find((w) => w.id === draft.water_id)
  const layers = layersOf(draft, waters, answer)
  const ec = d?.ec_total_uS_cm ?? water?.ec25_uS_cm ?? water?.usual?.usual_uS_cm ?? 20
  return (
    <Card title="What in">
      {problem && (
        <Text role="alert" color="state.stop" mb="3">
          {problem}
        </Text>
      )}
      <CanLayers
        layers={layers}
        volume={`${draft.volume} ${unit}`}
        ec={ec}
        label={`The can: ${layers.map((l) => `${l.name} ${l.line}`).join("; ")}`}
      />
      {!d && draft.product_id === null && (
        <Text>{`${draft.volume} ${unit} ${water?.name ?? ""}, nothing added`}</Text>
      )}
      {d && answer && (
        <>
          <Amounts answer={answer} />
          <Weighing d={d} measures={answer.measures} />
          <Box
            as="ol"
            pl="5"
            listStyleType="decimal"
            mt="3"
            borderTopWidth="1px"
            pt="3"
            lineHeight="1.75"
            aria-label="Steps"
          >
            {answer.bench.map((s, i) => (
              <li key={i}>
                <BenchLine step={s} />
              </li>
            ))}
          </Box>
          <Text
            mt="2"
            fontWeight="semibold"
            color={answer.clear.result.verdict === "clear" ? "state.good" : "state.stop"}
          >
            {answer.clear.result.sentence}
          </Text>
        </>
      )}
      <Text fontSize="sm" color="fg.muted" mt="3">
        The product’s label and local rules come first. Label the can; keep feed from children, pets
        and food vessels.
      </Text>
    </Card>
  )
}

function layersOf(draft: Draft, waters: Schemas["MixWater"][], answer?: Answer): Layer[] {
  const fills = answer?.bench.filter((s) => s.act === "half fill") ?? []
  const whole = fills.reduce((a, s) => a + s.amount, 0) || 1
  const plain = waters.find((w) => w.id === draft.water_id)
  const water = fills.length
    ? fills.map((s) => ({
        name: s.what,
        line:
          fills.length > 1
            ? `${figure((100 * s.amount) / whole, 3)} % of the can`
            : plain
              ? `${waterReads(plain)} alone`
              : "",
        share: (0.92 * s.amount) / whole,
        ec: 30,
      }))
    : [
        {
          name: plain?.name ?? "Water",
          line: plain ? waterReads(plain) : "",
          share: 0.92,
          ec: 30,
        },
      ]
  const feeds = (answer?.bench ?? []).filter(
    (s) => s.act === "weigh" || s.act === "measure" || s.act === "draw",
  )
  return [
    ...water,
    ...feeds.map((s) => ({
      name: s.what,
      line: amountOf(s.amount, s.unit),
      share: 0.05,
      ec: 2400,
      thin: true,
    })),
  ]
}
