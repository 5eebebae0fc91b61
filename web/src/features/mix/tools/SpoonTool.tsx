import { Button, Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { SelectField, TextField } from "../../../ui/fields"
import { figure } from "../../../ui/format"
import { useNotice } from "../../../ui/noticeContext"
import { Quantity } from "../../../ui/Quantity"
import { usePress } from "../../../ui/usePress"
import { useLiveForm } from "../../../ui/useLiveForm"
import { useUndo } from "../../../ui/useUndo"
import { soluble } from "../draft"
import { Columns, FieldGrid } from "./Columns"
import type { ToolProps } from "./Panels"
import { Kept } from "./KeptMeasures"
import { type Values, PLACES, bodyOf } from "./spoon"

/** Weigh five level ones, or count the drops in a millilitre. */
export function SpoonTool({ page, draft }: ToolProps) {
  const notice = useNotice()
  const undo = useUndo()
  const {
    form,
    values,
    answer: found,
    problem,
  } = useLiveForm<Values, Schemas["Computed_Calibrated_"]>(
    "spoon",
    {
      name: "",
      kind: "spoon",
      product_id: String(draft.product_id ?? soluble(page)[0]?.id ?? ""),
      w: ["", "", "", "", ""],
      volume_mL: "",
      levels: "1",
    },
    (v) => answer(client.POST("/api/measures/preview", { body: bodyOf(v) })),
    (v) => v.w.filter((x) => x !== "").length >= (v.kind === "dropper" ? 1 : 3),
  )
  const keep = usePress(
    (v: Values, key: string) =>
      answer(client.POST("/api/measures", { params: keyed(key), body: bodyOf(v) })),
    (stored, v) => {
      notice({ text: `${v.name} is saved.`, undo: () => undo("measure", stored.id) })
      form.reset({ ...v, name: "", w: ["", "", "", "", ""] })
    },
  )
  const r = found?.result
  const drops = values.kind === "dropper"
  return (
    <Columns
      problem={problem ?? (keep.isError ? keep.error.message : null)}
      asked={
        <>
          <FieldGrid>
            <TextField
              form={form}
              name="name"
              label="Name of the measure"
              hint="Such as blue spoons."
            />
            <SelectField
              form={form}
              name="kind"
              label="It is a"
              choices={["spoon", "cap", "dropper"]}
            />
            <SelectField
              form={form}
              name="product_id"
              label="Filled with"
              choices={soluble(page).map((p) => ({ value: String(p.id), label: p.name }))}
            />
            {!drops && (
              <TextField
                form={form}
                name="levels"
                label="Level ones in each weighing"
                numeric
                hint="Ten at once on a coarse scale."
              />
            )}
            {!drops && (
              <TextField form={form} name="volume_mL" label="Volume, if known" unit="mL" numeric />
            )}
          </FieldGrid>
          <Text mt="3" mb="1">
            {drops
              ? "Drops in one millilitre, counted once or more."
              : "Level each one with a knife; weigh five."}
          </Text>
          <FieldGrid>
            {PLACES.map((i) => (
              <TextField
                key={i}
                form={form}
                name={`w.${i}`}
                label={drops ? `Count ${i + 1}` : `Weighing ${i + 1}`}
                unit={drops ? undefined : "g"}
                numeric
              />
            ))}
          </FieldGrid>
        </>
      }
    >
      {r && found && (
        <>
          <Text fontSize="xl" fontWeight="semibold">
            <Quantity
              label="One level measure"
              value={r.each}
              unit={r.unit}
              working={{ kind: "here", working: found.working }}
            />
          </Text>
          <Text>
            {r.sentence} One alone is {figure(100 * r.cv, 2)} % off, the mean{" "}
            {figure(r.mean_error_pct, 2)} %.
            {r.bulk_density_g_mL ? ` Bulk density ${figure(r.bulk_density_g_mL, 3)} g/mL.` : ""}
          </Text>
          {found.working.cautions.map((c) => (
            <Text key={c} color="state.caution">
              {c}
            </Text>
          ))}
          <Button
            mt="3"
            minH="48px"
            loading={keep.isPending}
            onClick={() => keep.mutate(form.getValues())}
          >
            Save the measure
          </Button>
        </>
      )}
      <Kept />
    </Columns>
  )
}
