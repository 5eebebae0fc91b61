import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { metersQuery } from "../../../api/waterQueries"
import { Facts } from "../../../ui/Facts"
import { day, figure } from "../../../ui/format"
import { Loaded } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import { CheckForm } from "./CheckForm"
import { MeterForm } from "./MeterForm"
import { ScaleGuess } from "./ScaleGuess"

type Open = { what: "check" | "edit" | "scale"; id: number } | { what: "new" } | null

/** Is the meter true? Each with its checks, and what every reading from it carries. */
export function Meters() {
  const [open, setOpen] = useState<Open>(null)
  const close = () => setOpen(null)
  return (
    <Loaded query={useQuery(metersQuery)}>
      {(page) => (
        <>
          {page.meters.length === 0 && <Text mb="2">A pen that reads five percent low moves every verdict. Add yours, dip it into a standard now and then, and Fenwa corrects what it reads.</Text>}
          <Grid templateColumns="repeat(auto-fit, minmax(min(300px, 100%), 1fr))" gap="4">
            {page.meters.map((m) => <Meter key={m.id} meter={m} today={page.today} onOpen={(what) => setOpen({ what, id: m.id })} />)}
          </Grid>
          <Button mt="3" variant="outline" onClick={() => setOpen({ what: "new" })}>Add a meter</Button>
          <Box mt="3">
            {open?.what === "new" && <MeterForm onClose={close} />}
            {page.meters.map((m) => open && "id" in open && open.id === m.id && (
              <Box key={m.id}>
                {open.what === "check" && <CheckForm meter={m} standards={page.standards} today={page.today} onClose={close} />}
                {open.what === "edit" && <MeterForm meter={m} onClose={close} />}
                {open.what === "scale" && <ScaleGuess meter={m} others={page.meters} standards={page.standards} onClose={close} />}
              </Box>
            ))}
          </Box>
        </>
      )}
    </Loaded>
  )
}

function Meter({ meter: m, today, onOpen }: { meter: Schemas["MeterOut"]; today: string; onOpen: (what: "check" | "edit" | "scale") => void }) {
  const c = m.calibration
  const working = { kind: "fetch" as const, key: `meter-${m.id}`, load: async () => (await answer(client.GET("/api/meters/{meter_id}/calibration", { params: { path: { meter_id: m.id } } }))).working }
  return (
    <Box borderWidth="1px" borderRadius="md" p="3">
      <Text fontWeight="semibold">{m.name}</Text>
      <Text fontSize="sm" color="fg.muted">{m.unit}{m.unit === "ppm" ? ` (${m.scale === "unknown" || m.scale === null ? "scale not known" : `${m.scale} scale`})` : ""} · {m.compensation === "none" ? "does not compensate" : m.compensation === "linear" ? `compensates by ${figure(m.alpha_pct_per_C)} % a degree` : "compensates as natural water"}</Text>
      {m.problem && <Text color="state.stop" mt="1">{m.problem}</Text>}
      {c ? (
        <>
          <Text mt="1">{c.sentence}</Text>
          <Facts rows={[
            ["Slope", <Quantity key="s" label={`Slope of ${m.name}`} value={c.slope} unit="" working={working} />],
            ["Offset", <Quantity key="o" label={`Offset of ${m.name}`} value={c.offset_uS_cm} unit="µS/cm" working={working} />],
            ["Drift", <Quantity key="d" label={`Drift of ${m.name}`} value={c.drift_pct_month} unit="% a month" working={working} none="two checks are needed" />],
            ["Left open today", <Quantity key="u" label={`Uncertainty of ${m.name}`} value={100 * c.relative_half_width} unit="%" working={working} />],
            ["Fit for limits above", <Quantity key="f" label={`Lowest limit for ${m.name}`} kind="ec" value={c.fit_above_uS_cm} working={working} />],
            ["Next check", <b key="n">{m.check_due ? "due now" : day(c.next_check_on, today)}</b>],
          ]} />
        </>
      ) : <Text mt="1" color="fg.muted">Never checked: a usual pen’s 2 % is taken.</Text>}
      {m.checks.length > 0 && <Text mt="1" fontSize="sm" color="fg.muted">Last: {m.checks.slice(0, 2).map((k) => `${figure(k.shown, 4)} in ${k.standard_name === "own" ? figure(k.standard_uS_cm, 5) : k.standard_name} on ${day(k.on, today)}`).join("; ")}</Text>}
      <Flex gap="2" mt="2" wrap="wrap">
        <Button size="sm" aria-label={`Check in a standard: ${m.name}`} onClick={() => onOpen("check")}>Check in a standard</Button>
        <Button size="sm" variant="outline" aria-label={`Which scale is it? ${m.name}`} onClick={() => onOpen("scale")}>Which scale is it?</Button>
        <Button size="sm" variant="outline" aria-label={`Change ${m.name}`} onClick={() => onOpen("edit")}>Change</Button>
      </Flex>
    </Box>
  )
}
