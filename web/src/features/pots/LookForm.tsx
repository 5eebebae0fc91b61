import { Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { answer, client, keyed } from "../../api/client"
import { useOptions } from "../../api/queries"
import { NoteField, SelectField, TextField, TickField } from "../../ui/fields"
import { GrowthFields } from "./GrowthFields"
import { WhichPlant } from "./plants/WhichPlant"
import { EntrySheet } from "../../ui/EntrySheet"
import { useNotice } from "../../ui/noticeContext"
import { useEntryForm } from "../../ui/useEntryForm"
import { useUndo } from "../../ui/useUndo"
import { yesOrNo } from "../../ui/yesOrNo"
import { type Values, WORDS } from "./look"

/** Leaves counted, the newest measured, marks: what a look sees. */
export function LookForm({
  potId,
  last,
  today,
  onClose,
}: {
  potId: number
  last?: Schemas["LookOut"]
  today: string
  onClose: () => void
}) {
  const marks = useOptions()?.marks ?? []
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<Values, Schemas["LookOut"]>(
    {
      on: today,
      leaves_count: last?.leaves_count != null ? String(last.leaves_count) : "",
      newest_leaf: "",
      growing: "",
      new_leaf: false,
      new_growth: false,
      growth_stopped: false,
      spike: false,
      root: "",
      roots: "",
      growth: "lead",
      growth_length: "",
      all_roots: "",
      marks: [],
      none: false,
      note: "",
      plant_id: "",
    },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/looks", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: {
            on: v.on,
            leaves_count: v.leaves_count,
            newest_leaf: v.newest_leaf,
            newest_leaf_unit: "mm",
            leaf_growing: yesOrNo(v.growing),
            new_leaf: v.new_leaf,
            new_growth: v.new_growth,
            growth_stopped: v.growth_stopped,
            spike: v.spike,
            root: v.root || null,
            growth: v.growth,
            growth_length: v.growth_length || null,
            roots: v.all_roots.split(/[;\s]+/).filter(Boolean),
            roots_working: v.roots === "" ? null : v.roots === "yes",
            marks: v.marks || [],
            marks_looked_for: v.none || (v.marks || []).length > 0,
            unknown: [],
            note: v.note,
            plant_id: v.plant_id === "" ? null : Number(v.plant_id),
          },
        }),
      ),
    (look) => {
      notice({ text: "The look is kept.", undo: () => undo("look", look.id) })
      onClose()
    },
  )
  return (
    <EntrySheet entry={entry} title="Log a look" submit="Keep the look" onCancel={onClose}>
      <WhichPlant form={entry.form} name="plant_id" potId={potId} whole="the leading plant" />
      <TextField
        form={entry.form}
        name="leaves_count"
        label="Leaves counted"
        numeric
        hint="Empty: not counted."
      />
      <TextField
        form={entry.form}
        name="newest_leaf"
        label="Newest leaf"
        unit="mm"
        numeric
        hint="Empty: not measured."
      />
      <SelectField
        form={entry.form}
        name="growing"
        label="It grows still"
        choices={[{ value: "", label: "not said" }, "yes", "no"]}
        hint="A first size never stands for the finished one."
      />
      <GrowthFields form={entry.form} />
      <SelectField
        form={entry.form}
        name="roots"
        label="Roots"
        choices={[
          { value: "", label: "not looked at" },
          { value: "yes", label: "alive, some with fresh tips" },
          { value: "no", label: "none that live" },
        ]}
        hint="Without living roots feed waits."
      />
      <fieldset>
        <Text as="legend" fontSize="sm" fontWeight="medium">
          Growth since the last look
        </Text>
        <Flex direction="column">
          <TickField form={entry.form} name="new_leaf" label="a new leaf" />
          <TickField form={entry.form} name="new_growth" label="a new shoot or lead" />
          <TickField form={entry.form} name="spike" label="a spike or buds" />
          <TickField form={entry.form} name="growth_stopped" label="growth has stopped" />
        </Flex>
      </fieldset>
      <fieldset>
        <Text as="legend" fontSize="sm" fontWeight="medium">
          Marks
        </Text>
        <Flex direction="column">
          {marks.map((m) => (
            <TickField key={m} form={entry.form} name="marks" value={m} label={WORDS[m] ?? m} />
          ))}
          <TickField form={entry.form} name="none" label="looked for, none seen" />
        </Flex>
      </fieldset>
      <TextField form={entry.form} name="on" label="Date" type="date" />
      <NoteField form={entry.form} name="note" label="Note" />
    </EntrySheet>
  )
}
