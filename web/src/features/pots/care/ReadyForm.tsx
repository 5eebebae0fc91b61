import { useOptions } from "../../../api/queries"
import { Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { probesQuery } from "../../../api/queries"
import { SelectField, TextField } from "../../../ui/fields"
import { EntrySheet } from "../../../ui/EntrySheet"
import { useEntryForm } from "../../../ui/useEntryForm"
import { ProbeForm } from "./ProbeForm"
import { SignsFields } from "./SignsFields"

type Body = Schemas["ReadyIn"]
type Values = {
  ready_by: Body["ready_by"]
  at: string
  moist: NonNullable<Body["moist"]>
  probe_id: string
  signs: string[]
  least: string
}

const BY = [
  { value: "days", label: "by days; I feel it first" },
  { value: "weight", label: "by its weight" },
  { value: "probe", label: "by a probe" },
  { value: "finger", label: "by the finger" },
  { value: "roots", label: "when its roots are silver" },
  { value: "droop", label: "at the first droop" },
  { value: "signs", label: "when several signs agree" },
]

type Props = { potId: number; care: Schemas["CarePage"]; onClose: () => void }

/** By what this pot tells that it wants water: each grower's own rule. */
export function ReadyForm(props: Props) {
  const probes = useQuery(probesQuery).data
  return probes ? <Rule {...props} probes={probes} /> : <Text role="status">One moment.</Text>
}

function Rule({ potId, care, probes, onClose }: Props & { probes: Schemas["ProbeOut"][] }) {
  const moist = useOptions()?.moist.slice(1) ?? [care.ready_moist]
  const [adding, setAdding] = useState(false)
  const at =
    care.ready_at === null
      ? ""
      : String(care.ready_by === "weight" ? Math.round(care.ready_at * 100) : care.ready_at)
  const entry = useEntryForm<Values, Schemas["Stored"]>(
    {
      ready_by: care.ready_by,
      at: care.ready_by === "finger" ? "" : at,
      moist: care.ready_moist,
      probe_id: care.probe_id === null ? "" : String(care.probe_id),
      signs: care.signs,
      least: String(care.signs_least),
    },
    (v, key) =>
      answer(
        client.POST("/api/pots/{pot_id}/ready", {
          params: { ...keyed(key), path: { pot_id: potId } },
          body: {
            ready_by: v.ready_by,
            at: v.at || null,
            moist: v.moist,
            probe_id: v.probe_id ? Number(v.probe_id) : null,
            signs: (v.signs || []) as Body["signs"] & {},
            least: Number(v.least) || 2,
          },
        }),
      ),
    onClose,
  )
  const by = entry.form.watch("ready_by")
  const probe = probes.find((p) => String(p.id) === entry.form.watch("probe_id"))
  return (
    <>
      <EntrySheet
        entry={entry}
        title="When it wants water"
        submit="Save the rule"
        onCancel={onClose}
      >
        <SelectField form={entry.form} name="ready_by" label="Ready" choices={BY} />
        {by === "weight" && (
          <TextField
            form={entry.form}
            name="at"
            label="Water it at"
            unit="% of its water left"
            numeric
            hint="Empty: 10. Weigh it drained and dry once."
          />
        )}
        {by === "signs" && <SignsFields form={entry.form} />}
        {by === "finger" && (
          <SelectField form={entry.form} name="moist" label="Water it when" choices={moist} />
        )}
        {by === "probe" && (
          <SelectField
            form={entry.form}
            name="probe_id"
            label="Probe"
            choices={[
              { value: "", label: "choose" },
              ...probes.map((p) => ({
                value: String(p.id),
                label: `${p.name}, ${p.lowest} to ${p.highest}`,
              })),
            ]}
          />
        )}
        {by === "probe" && (
          <TextField
            form={entry.form}
            name="at"
            label="Water it at"
            numeric
            hint={
              probe
                ? `On its own scale, ${probe.dry_end === "low" ? probe.lowest : probe.highest} is dry.`
                : "On the probe’s own scale."
            }
          />
        )}
        {by === "probe" && !adding && (
          <Button
            type="button"
            variant="outline"
            minH="44px"
            mt="6"
            flex="0 0 auto!"
            onClick={() => setAdding(true)}
          >
            Another probe
          </Button>
        )}
      </EntrySheet>
      {adding && (
        <ProbeForm
          onClose={(id) => {
            setAdding(false)
            if (id) entry.form.setValue("probe_id", String(id))
          }}
        />
      )}
    </>
  )
}
