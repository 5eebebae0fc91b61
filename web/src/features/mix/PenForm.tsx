import { readerPen } from "../../ui/format"
import { Button, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { metersQuery } from "../../api/waterQueries"
import { SelectField, TextField } from "../../ui/fields"
import { useEntryForm } from "../../ui/useEntryForm"

type Values = {
  value: string
  meter_id: string
  temperature: string
  unit: "µS/cm" | "mS/cm" | "ppm"
  scale: "0.5" | "0.64" | "0.7" | "unknown"
}

export function PenForm({
  batchId,
  today,
  onJudged,
  again,
}: {
  batchId: number
  today: string
  onJudged: (j: Schemas["Judged"]) => void
  again: boolean
}) {
  const known = useQuery(metersQuery).data?.meters
  const meters = known ?? []
  const entry = useEntryForm<Values, Schemas["Judged"]>(
    { value: "", meter_id: "", temperature: "", ...readerPen() },
    (v, key) => {
      const meter = meters.find((m) => String(m.id) === v.meter_id)
      return answer(
        client.POST("/api/batches/{batch_id}/reading", {
          params: { ...keyed(key), path: { batch_id: batchId } },
          body: {
            on: today,
            value: v.value,
            unit: meter?.unit ?? v.unit,
            scale: meter ? meter.scale : v.unit === "ppm" ? v.scale : null,
            meter_id: meter?.id ?? null,
            compensated: meter?.compensation !== "none",
            temperature: v.temperature,
            temperature_unit: "°C",
            note: "",
          },
        }),
      )
    },
    onJudged,
  )
  const [unit, meterId] = entry.form.watch(["unit", "meter_id"])
  return (
    <form onSubmit={(e) => void entry.submit(e)} noValidate>
      <Grid templateColumns="1fr 1fr" gap="3">
        <TextField form={entry.form} name="value" label="Measured EC" numeric />
        {meterId === "" && (
          <SelectField
            form={entry.form}
            name="unit"
            label="Unit"
            choices={["µS/cm", "mS/cm", "ppm"]}
          />
        )}
        {(known === undefined || known.length > 0) && (
          <SelectField
            form={entry.form}
            name="meter_id"
            label="Meter"
            choices={[
              { value: "", label: "not named" },
              ...meters.map((m) => ({ value: String(m.id), label: m.name })),
            ]}
          />
        )}
        {meters.find((m) => String(m.id) === meterId)?.compensation === "none" && (
          <TextField
            form={entry.form}
            name="temperature"
            label="Temperature of the can"
            unit="°C"
            numeric
          />
        )}
        {meterId === "" && unit === "ppm" && (
          <SelectField
            form={entry.form}
            name="scale"
            label="ppm scale"
            choices={[{ value: "unknown", label: "not known" }, "0.5", "0.64", "0.7"]}
          />
        )}
      </Grid>
      {entry.problem && (
        <Text role="alert" color="state.stop" mt="2">
          {entry.problem}
        </Text>
      )}
      <Button
        type="submit"
        mt="3"
        minH="48px"
        variant={again ? "outline" : "solid"}
        loading={entry.pending}
      >
        {again ? "Judge again" : "Judge it"}
      </Button>
    </form>
  )
}
