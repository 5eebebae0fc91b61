import { Box, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useWatch } from "react-hook-form"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useOptions } from "../../api/queries"
import { EntrySheet, SelectField, TextField, TickField } from "../../ui/fields"
import { useNotice } from "../../ui/noticeContext"
import { type EntryForm, useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"
import { GradeField } from "./GradeField"
import { bodyOf, MAJOR, NITROGEN, TRACES, type Values, valuesOf } from "./labelFields"
import { LabelSum } from "./LabelSum"

type Props = { product?: Schemas["ProductOut"]; pack?: Schemas["PackOut"]; onClose: () => void }

const CHOOSE = { value: "", label: "choose" }

/** A feed by what its label says, or a salt by its formula, with its pack. */
export function ProductForm({ product, pack, onClose }: Props) {
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    valuesOf(product, pack),
    (v, key) =>
      product
        ? answer(
            client.POST("/api/products/{product_id}/correct", {
              params: { ...keyed(key), path: { product_id: product.id } },
              body: bodyOf(v),
            }),
          )
        : answer(client.POST("/api/products", { params: keyed(key), body: bodyOf(v) })),
    (stored, v) => {
      notice(
        product
          ? { text: `${v.name} is corrected. Cans made before keep their label.` }
          : { text: `${v.name} stands on the shelf.`, undo: () => undo("product", stored.id) },
      )
      onClose()
    },
  )
  const v = useWatch({ control: entry.form.control }) as Values
  return (
    <EntrySheet
      entry={entry}
      title={product ? `Correct ${product.name}` : "Add a feed by its label"}
      submit={product ? "Keep the correction" : "Keep the feed"}
      onCancel={onClose}
    >
      <TextField form={entry.form} name="name" label="Name" hint="Name it by what it is." />
      <SelectField
        form={entry.form}
        name="kind"
        label="It is"
        choices={[
          { value: "soluble", label: "dissolved in a can" },
          { value: "prill", label: "slow-release prills" },
          { value: "no ppm", label: "prey, castings and the like" },
        ]}
      />
      {v.kind !== "no ppm" && <LabelPart entry={entry} v={v} />}
      {v.kind === "prill" && <TextField form={entry.form} name="longevity_days" label="Lasts" unit="days" numeric />}
      {v.kind === "prill" && (
        <TextField
          form={entry.form}
          name="longevity_at_C"
          label="At"
          unit="°C"
          numeric
          hint="Stated on the label, often 21 or 25."
        />
      )}
      <Pack entry={entry} v={v} />
    </EntrySheet>
  )
}

function LabelPart({ entry, v }: { entry: EntryForm<Values>; v: Values }) {
  const f = entry.form
  const options = useOptions()
  const salt = v.formula.trim() !== ""
  return (
    <>
      <TextField
        form={f}
        name="formula"
        label="Or its formula"
        hint="A pure salt: Ca(NO3)2.4H2O. Then no shares are needed."
      />
      {!salt && (
        <>
          <GradeField form={f} />
          <SelectField form={f} name="form" label="Form" choices={["powder", "liquid"]} />
          {v.form === "liquid" && (
            <SelectField
              form={f}
              name="basis"
              label="Per cent means"
              choices={[
                CHOOSE,
                { value: "w/w", label: "grams in 100 g (w/w)" },
                { value: "w/v", label: "grams in 100 mL (w/v)" },
              ]}
            />
          )}
          {v.form === "liquid" && (
            <TextField
              form={f}
              name="density_g_mL"
              label="Density"
              unit="g/mL"
              numeric
              hint="Weigh 10 mL if the label is silent."
            />
          )}
          {v.form === "liquid" && !v.density_g_mL && (
            <TickField form={f} name="density_unknown" label="Not known: take the usual 1.15 ± 0.08" />
          )}
          <SelectField
            form={f}
            name="pk_as"
            label="P and K are given as"
            hint="Elements in some countries: look at the label."
            choices={[CHOOSE, { value: "oxide", label: "P2O5 and K2O" }, { value: "element", label: "P and K" }]}
          />
          <SelectField
            form={f}
            name="others_as"
            label="Ca, Mg and S are given as"
            hint="Oxides on many European labels."
            choices={[
              CHOOSE,
              { value: "element", label: "Ca, Mg and S" },
              { value: "oxide", label: "CaO, MgO and SO3" },
            ]}
          />
          {[...NITROGEN, ...MAJOR].map(([key, label]) => (
            <TextField key={key} form={f} name={key} label={label} unit="%" numeric />
          ))}
          <More summary="Trace elements">
            {TRACES.map(([key, label]) => (
              <TextField key={key} form={f} name={key} label={label} unit="%" numeric />
            ))}
            <SelectField
              form={f}
              name="fe_chelate"
              label="Iron is bound as"
              choices={[{ value: "", label: "not stated" }, "EDTA", "DTPA", "EDDHA", "other"]}
            />
          </More>
        </>
      )}
      <TextField form={f} name="label_rate" label="Label rate" numeric hint="Empty: not stated." />
      <SelectField form={f} name="rate_amount" label="Rate counts" choices={options?.rate_amounts ?? ["g"]} />
      <SelectField
        form={f}
        name="rate_per"
        label="Rate per"
        choices={options?.rate_pers ?? ["L"]}
        hint="US and imperial gallons differ by a fifth."
      />
      <More summary="Spoons, solubility, acidity">
        <TextField form={f} name="bulk_density_g_mL" label="A level spoon weighs" unit="g/mL" numeric />
        <TextField form={f} name="cap_mL" label="A cap holds" unit="mL" numeric />
        <TextField form={f} name="drop_mL" label="A drop holds" unit="mL" numeric />
        <TextField form={f} name="solubility_g_L" label="Dissolves at 20 °C" unit="g/L" numeric />
        <TextField form={f} name="acidity_kg_t" label="Potential acidity" numeric hint="Below 0 for a basic product." />
        <SelectField
          form={f}
          name="acidity_unit"
          label="Acidity in"
          choices={["kg CaCO3/t", "lb/short ton", "lb/long ton"]}
        />
      </More>
      <LabelSum values={v} />
    </>
  )
}

function Pack({ entry, v }: { entry: EntryForm<Values>; v: Values }) {
  const unit = v.form === "liquid" && v.formula === "" ? "mL" : v.kind === "no ppm" ? "items or g" : "g"
  return (
    <More summary="Pack, price and what is left">
      <TextField form={entry.form} name="price" label="Price of a pack" numeric />
      <TextField form={entry.form} name="pack_amount" label="A pack holds" unit={unit} numeric />
      <TextField form={entry.form} name="opened_on" label="Opened on" type="date" />
      <TextField
        form={entry.form}
        name="left_amount"
        label="Left"
        unit={unit}
        numeric
        hint="Cans made later are taken off."
      />
    </More>
  )
}

function More({ summary, children }: { summary: string; children: React.ReactNode }) {
  return (
    <Box asChild flex="1 1 100% !important" maxW="none !important">
      <details>
        <summary style={{ cursor: "pointer", padding: "10px 0" }}>{summary}</summary>
        <Box display="flex" gap="3" flexWrap="wrap" css={{ "& > *": { flex: "1 1 150px", maxWidth: "420px" } }}>
          {children}
        </Box>
      </details>
    </Box>
  )
}

/** A note under a form, as wide as it. */
export function Wide({ children }: { children: React.ReactNode }) {
  return (
    <Text flex="1 1 100% !important" maxW="none !important" fontSize="sm">
      {children}
    </Text>
  )
}

export const useLabelElements = (body: Schemas["LabelIn"], key: string, ready: boolean) =>
  useQuery({
    queryKey: ["label", key],
    queryFn: () => answer(client.POST("/api/products/elements", { body })),
    enabled: ready,
    retry: false,
  })
