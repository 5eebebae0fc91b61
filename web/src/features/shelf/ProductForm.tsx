import { useState } from "react"
import { useWatch } from "react-hook-form"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { SelectField, TextField } from "../../ui/fields"
import { EntrySheet } from "../../ui/EntrySheet"
import { useNotice } from "../../ui/noticeContext"
import { type EntryForm, useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"
import { More } from "./formParts"
import { bodyOf, type Values, valuesOf } from "./labelFields"
import { LabelPart } from "./LabelPart"

type Props = { product?: Schemas["ProductOut"]; pack?: Schemas["PackOut"]; onClose: () => void }

/** A feed by what its label says, or a salt by its formula, with its pack. */
export function ProductForm({ product, pack, onClose }: Props) {
  const notice = useNotice()
  const undo = useUndo()
  // as it was opened: the page beside it may be asked for anew meanwhile
  const [opened] = useState(() => valuesOf(product, pack))
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    opened,
    (v, key, theirs) =>
      product
        ? answer(
            client.POST("/api/products/{product_id}/correct", {
              params: { ...keyed(key), path: { product_id: product.id } },
              body: { ...bodyOf(v), seen: { ...bodyOf(opened), ...theirs } },
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
      submit={product ? "Save the correction" : "Save the feed"}
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
      {v.kind === "prill" && (
        <TextField form={entry.form} name="longevity_days" label="Lasts" unit="days" numeric />
      )}
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

function Pack({ entry, v }: { entry: EntryForm<Values>; v: Values }) {
  const unit =
    v.form === "liquid" && v.formula === "" ? "mL" : v.kind === "no ppm" ? "items or g" : "g"
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
