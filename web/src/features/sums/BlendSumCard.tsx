import { drawn } from "../../ui/typed"
import { Grid } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { useOptions } from "../../api/queries"
import { SelectField, TextField } from "../../ui/fields"
import { amount, numberIn, unitName } from "../../ui/format"
import { SaveBlend } from "./SaveBlend"
import { SaveRunoff } from "./saves"
import { SumCard } from "./SumCard"
import { type BlendValues, type FlushValues, span, type WaterValues } from "./sum"
import type { Live } from "./useSums"

/** Two waters to one of a wanted conductivity. */
export function BlendSumCard({
  live,
  mine,
  other,
}: {
  live: Live<BlendValues, Schemas["Computed_Blend_"]>
  mine: string
  other: string
}) {
  const { form: f, answer: a } = live
  const [first, second] = a?.result.parts ?? []
  return (
    <SumCard
      title="How much of each?"
      result={
        first
          ? `${amount(first.litres, "L")} in ${amount(drawn(live.values.volume, "L") ?? 0, "L")}`
          : "\u2026"
      }
      said={
        a &&
        first &&
        second &&
        [
          `${amount(first.litres, "L")} of ${mine} and ${amount(second.litres, "L")} of ${other}`,
          `read ${amount(a.result.ec25_uS_cm, "µS/cm")} at most.`,
        ].join(" ")
      }
      working={a?.working}
      save={
        first &&
        second && (
          <SaveBlend shares={[first.share, second.share]} litres={first.litres + second.litres} />
        )
      }
      problem={live.problem}
    >
      <Grid templateColumns="repeat(auto-fit, minmax(116px, 1fr))" gap="3">
        <TextField form={f} name="target" label="At most" unit="µS/cm" numeric />
        <TextField form={f} name="volume" label="Can" unit="L" numeric />
      </Grid>
    </SumCard>
  )
}

/** How many litres to flush this pot. */
export function FlushSumCard({
  live,
  water,
  other,
}: {
  live: Live<FlushValues, Schemas["Computed_FlushLitres_"]>
  water: WaterValues
  other: string
}) {
  const { form: f, answer: a } = live
  const media = useOptions()?.media ?? []
  const r = a?.result
  return (
    <SumCard
      title="How much to flush?"
      result={r ? span(r.low_L, r.high_L, (n) => numberIn(n, "L")) : "\u2026"}
      unit={`${unitName("L")} of ${other}`}
      said={r?.sentence}
      working={a?.working}
      save={r && <SaveRunoff values={live.values} water={water} />}
      problem={live.problem}
    >
      <Grid templateColumns="repeat(auto-fit, minmax(116px, 1fr))" gap="3">
        <TextField form={f} name="volume" label="Pot" unit="L" numeric />
        <SelectField form={f} name="medium_id" label="Medium" choices={media} />
        <TextField form={f} name="runoff" label="Runoff reads" unit={water.unit} own numeric />
        <TextField form={f} name="target" label="It shall read" unit="µS/cm" numeric />
      </Grid>
    </SumCard>
  )
}
