import { Box, Grid, Text } from "@chakra-ui/react"
import { SelectField, TextField } from "../../ui/fields"
import { amount as inUnits, figure, numberIn, unitName } from "../../ui/format"
import { Quantity } from "../../ui/Quantity"
import { SaveCan, SaveCanReading } from "./saves"
import { SumCard } from "./SumCard"
import { type FeedSum, type FeedValues, span, type WaterValues } from "./sum"
import type { Live } from "./useSums"

const ec = (n: number) => numberIn(n, "µS/cm")
const strengths = () => [
  { value: "nitrogen", label: "mg/L nitrogen" },
  { value: "fraction", label: "share of the label" },
  { value: "ec_added", label: `${unitName("µS/cm")} added` },
  { value: "ec_total", label: `${unitName("µS/cm")} in the can` },
  { value: "dose", label: "g or mL a litre" },
]

/** How much of this feed for this can; small amounts through a stock; and whether the can is right. */
export function FeedSumCard({
  live,
  water,
  mine,
  other,
}: {
  live: Live<FeedValues, FeedSum>
  water: WaterValues
  mine: string
  other: string
}) {
  const { form: f, values: v, answer: a } = live
  const d = a?.dose.result
  const liquid = v.form === "liquid"
  const amount = liquid ? (d?.amount_mL ?? null) : (d?.amount_g ?? null)
  return (
    <SumCard
      title="How much feed for this can?"
      result={amount === null ? "\u2026" : liquid ? figure(amount) : numberIn(amount, "g")}
      unit={liquid ? "mL" : unitName("g")}
      said={
        a && d?.stock && !d.weighable ? (
          <>
            {a.echo || a.grade_sentence} Too little for a kitchen scale: dissolve{" "}
            <b>{inUnits(d.stock.mass_g, "g")}</b> in <b>{figure(d.stock.bottle_mL)} mL</b>, then
            draw <b>{figure(d.stock.draw_mL)} mL</b> for the can.
          </>
        ) : (
          a && (a.echo || a.grade_sentence)
        )
      }
      working={a?.dose.working}
      save={a && <SaveCan values={v} water={water} />}
      problem={live.problem}
    >
      <Grid templateColumns="repeat(auto-fit, minmax(116px, 1fr))" gap="3">
        <TextField form={f} name="volume" label="Can" unit="L" numeric />
        <TextField form={f} name="grade" label="Label" placeholder="13-3-15" />
        <SelectField form={f} name="form" label="Form" choices={["powder", "liquid"]} />
        <TextField
          form={f}
          name="value"
          label="Strength"
          unit={v.strength.startsWith("ec") ? "µS/cm" : undefined}
        />
        <SelectField form={f} name="strength" label="Named as" choices={strengths()} />
        {v.strength === "fraction" && (
          <TextField
            form={f}
            name="label_rate"
            label="Label says"
            unit={liquid ? "mL/L" : "g/L"}
            numeric
          />
        )}
        <SelectField
          form={f}
          name="fill"
          label="Filled with"
          choices={[
            { value: "thinner", label: other },
            { value: "this", label: mine },
          ]}
        />
      </Grid>
    </SumCard>
  )
}

/** Is my can right: expected against read. */
export function CanSumCard({
  live,
  water,
}: {
  live: Live<FeedValues, FeedSum>
  water: WaterValues
}) {
  const a = live.answer
  const d = a?.dose.result
  const check = a?.check
  return (
    <SumCard
      title="Is this can right?"
      result={
        check
          ? check.result.verdict
          : d
            ? `Expected ${span(d.ec_low_uS_cm, d.ec_high_uS_cm, ec)}`
            : "\u2026"
      }
      unit={check ? "" : unitName("µS/cm")}
      said={check ? check.result.sentence : "Type what the pen reads in it."}
      working={check?.working}
      save={check && <SaveCanReading read={live.values.read} water={water} />}
      problem={null}
    >
      <Grid templateColumns="repeat(auto-fit, minmax(116px, 1fr))" gap="3">
        <TextField
          form={live.form}
          name="read"
          label="The pen reads"
          unit={water.unit}
          own
          placeholder="not read"
          numeric
        />
        <Box>
          {check && d && (
            <Text>
              Expected{" "}
              <Quantity
                label="Expected in the can"
                value={d.ec_total_uS_cm}
                low={d.ec_low_uS_cm}
                high={d.ec_high_uS_cm}
                kind="ec"
                working={a ? { kind: "here", working: a.dose.working } : undefined}
              />
            </Text>
          )}
        </Box>
      </Grid>
    </SumCard>
  )
}
