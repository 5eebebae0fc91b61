import { useOptions } from "../../../api/queries"
import { Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { probesQuery } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useNotice } from "../../../ui/noticeContext"
import { useEntryForm } from "../../../ui/useEntryForm"
import { useUndo } from "../../../ui/useUndo"
import { yesOrNo } from "../../../ui/yesOrNo"

type Body = Schemas["FeltIn"]
type Values = {
  on: string
  probe_id: string
  probe_value: string
  moist: string
  roots: string
  droops: string
  wall: string
  heft: string
}
const NOT = { value: "", label: "not looked at" }

type Props = { potId: number; care: Schemas["CarePage"]; today: string; onClose: () => void }

/** How dry the pot was found; what is left open was not looked at. */
export function FeltForm(props: Props) {
  const probes = useQuery(probesQuery).data
  return probes ? <Found {...props} probes={probes} /> : <Text role="status">One moment.</Text>
}

function Found({ potId, care, probes, today, onClose }: Props & { probes: Schemas["ProbeOut"][] }) {
  const moist = useOptions()?.moist ?? []
  const notice = useNotice()
  const undo = useUndo()
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      on: today,
      probe_id: care.probe_id === null ? "" : String(care.probe_id),
      probe_value: "",
      moist: "",
      roots: "",
      droops: "",
      wall: "",
      heft: "",
    },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/felt", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: {
            on: v.on,
            probe_id: v.probe_id ? Number(v.probe_id) : null,
            probe_value: v.probe_value || null,
            moist: (v.moist || null) as Body["moist"],
            roots: (v.roots || null) as Body["roots"],
            droops: yesOrNo(v.droops),
            wall: (v.wall || null) as Body["wall"],
            heft: (v.heft || null) as Body["heft"],
          },
        }),
      ),
    (stored) => {
      notice({ text: "What you found is saved.", undo: () => undo("felt", stored.id) })
      onClose()
    },
  )
  const f = entry.form
  return (
    <EntrySheet entry={entry} title="How dry is it?" submit="Save" onCancel={onClose}>
      <SelectField form={f} name="moist" label="To the finger" choices={[NOT, ...moist]} />
      {probes.length > 0 && (
        <SelectField
          form={f}
          name="probe_id"
          label="Probe"
          choices={[
            { value: "", label: "none" },
            ...probes.map((p) => ({
              value: String(p.id),
              label: `${p.name}, ${p.lowest} to ${p.highest}`,
            })),
          ]}
        />
      )}
      {probes.length > 0 && (
        <TextField form={f} name="probe_value" label="The probe shows" numeric />
      )}
      <SelectField
        form={f}
        name="roots"
        label="Roots seen"
        choices={[
          NOT,
          { value: "green", label: "green: wet" },
          { value: "silver", label: "silver: dry" },
        ]}
      />
      <SelectField
        form={f}
        name="droops"
        label="Leaves"
        choices={[NOT, { value: "no", label: "firm" }, { value: "yes", label: "drooping" }]}
      />
      <SelectField
        form={f}
        name="wall"
        label="Wall of a clear pot"
        choices={[
          NOT,
          { value: "misted", label: "misted: wet" },
          { value: "clear", label: "clear" },
        ]}
      />
      <SelectField
        form={f}
        name="heft"
        label="In the hand"
        choices={[NOT, { value: "heavy", label: "heavy" }, { value: "light", label: "light" }]}
      />
      <TextField form={f} name="on" label="On" type="date" />
    </EntrySheet>
  )
}
