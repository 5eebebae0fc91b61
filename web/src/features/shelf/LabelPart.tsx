import { amount } from "../../ui/format"
import { useOptions } from "../../api/queries"
import { SelectField, TextField, TickField } from "../../ui/fields"
import type { EntryForm } from "../../ui/useEntryForm"
import { More } from "./formParts"
import { GradeField } from "./GradeField"
import { MAJOR, NITROGEN, TRACES, type Values } from "./labelFields"
import { LabelSum } from "./LabelSum"

const CHOOSE = { value: "", label: "choose" }

/** What a label says, with what it leaves to be asked; or the formula of a pure salt. */
export function LabelPart({ entry, v }: { entry: EntryForm<Values>; v: Values }) {
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
            <TickField
              form={f}
              name="density_unknown"
              label="Not known: take the usual 1.15 ± 0.08"
            />
          )}
          <SelectField
            form={f}
            name="pk_as"
            label="P and K are given as"
            hint="Elements in some countries: look at the label."
            choices={[
              CHOOSE,
              { value: "oxide", label: "P2O5 and K2O" },
              { value: "element", label: "P and K" },
            ]}
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
      <SelectField
        form={f}
        name="rate_amount"
        label="Rate counts"
        choices={options?.rate_amounts ?? ["g"]}
      />
      <SelectField
        form={f}
        name="rate_per"
        label="Rate per"
        choices={options?.rate_pers ?? ["L"]}
        hint="US and imperial gallons differ by a fifth."
      />
      <More summary="Spoons, solubility, acidity">
        <TextField
          form={f}
          name="bulk_density_g_mL"
          label="A level spoon weighs"
          unit="g/mL"
          numeric
        />
        <TextField form={f} name="cap_mL" label="A cap holds" unit="mL" numeric />
        <TextField form={f} name="drop_mL" label="A drop holds" unit="mL" numeric />
        <TextField
          form={f}
          name="solubility_g_L"
          label={`Dissolves at ${amount(20, "°C")}`}
          unit="g/L"
          numeric
        />
        <TextField
          form={f}
          name="acidity_kg_t"
          label="Potential acidity"
          numeric
          hint="Below 0 for a basic product."
        />
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
