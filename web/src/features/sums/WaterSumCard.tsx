import { Grid } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useOptions } from "../../api/queries"
import { kindsQuery } from "../../api/waterQueries"
import { SelectField, TextField } from "../../ui/fields"
import { numberIn, unitName } from "../../ui/format"
import { SaveReading } from "./saves"
import { SumCard } from "./SumCard"
import { span, type WaterSum, type WaterValues } from "./sum"
import type { Live } from "./useSums"

const UNITS = ["µS/cm", "mS/cm", "dS/m", "ppm"]
const SCALES = [
  { value: "", label: "not known" },
  { value: "0.5", label: "0.5" },
  { value: "0.64", label: "0.64" },
  { value: "0.7", label: "0.7" },
]

/** What is this water, in one unit for all; a kind alone gives its usual range. */
export function WaterSumCard({ live }: { live: Live<WaterValues, WaterSum> }) {
  const kinds = useQuery(kindsQuery).data ?? []
  const { form: f, values: v, answer: a } = live
  const w = a?.water
  return (
    <SumCard
      title="What is this water?"
      result={w ? span(w.low_uS_cm, w.high_uS_cm, (n) => numberIn(n, "µS/cm")) : "\u2026"}
      unit={unitName("µS/cm")}
      said={w?.sentence}
      working={w?.working}
      save={w?.measured && <SaveReading values={v} />}
      problem={live.problem}
    >
      <Grid templateColumns="repeat(auto-fit, minmax(116px, 1fr))" gap="3">
        <SelectField form={f} name="kind" label="Kind" choices={kinds} />
        <TextField form={f} name="value" label="The pen shows" placeholder="not read" numeric />
        <SelectField form={f} name="unit" label="Unit" choices={UNITS} />
        {v.unit === "ppm" && (
          <SelectField form={f} name="scale" label="ppm scale" choices={SCALES} />
        )}
      </Grid>
    </SumCard>
  )
}

/** May it drink this, plain or thinned. */
export function DrinkSumCard({ live }: { live: Live<WaterValues, WaterSum> }) {
  const options = useOptions()
  const kinds = useQuery(kindsQuery).data ?? []
  const who = live.answer?.who
  const asked = who?.result.asked
  const words = {
    yes: "Yes",
    "a reading decides": "Read it first",
    thinned: `Not plain: 1 part in ${asked?.one_in}`,
    no: "No",
  }
  return (
    <SumCard
      title="May it drink this?"
      result={asked ? words[asked.answer] : who ? `${who.result.yes} kinds` : "\u2026"}
      said={who?.result.sentence}
      working={who?.working}
      problem={null}
    >
      <Grid templateColumns="repeat(auto-fit, minmax(116px, 1fr))" gap="3">
        <SelectField
          form={live.form}
          name="plant"
          label="Plant"
          choices={[{ value: "", label: "all kinds" }, ...(options?.profiles ?? [])]}
        />
        <SelectField form={live.form} name="thinner" label="Thinned with" choices={kinds} />
      </Grid>
    </SumCard>
  )
}
