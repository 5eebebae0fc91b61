import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client } from "../../../api/client"
import { reportsQuery, useQuantities } from "../../../api/waterQueries"
import { Facts } from "../../../ui/Facts"
import { day } from "../../../ui/format"
import { useNotice } from "../../../ui/noticeContext"
import { Loaded } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import { useUndo } from "../../../ui/useUndo"
import { FileImport } from "../reading/FileImport"
import { ReportForm } from "./ReportForm"

/** Water reports: what is in it, does it balance, what follows, what is missing. */
export function Reports({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const [open, setOpen] = useState<"type" | "file" | null>(null)
  return (
    <Loaded query={useQuery(reportsQuery)}>
      {(reports) => (
        <>
          <Flex gap="2" mb="3" wrap="wrap">
            <Button onClick={() => setOpen("type")}>Type a report</Button>
            <Button variant="outline" onClick={() => setOpen("file")}>Read reports from a file</Button>
            {reports.length > 0 && <Button asChild variant="outline"><a href="/api/reports.csv" download>Save all as CSV</a></Button>}
          </Flex>
          {open === "type" && <ReportForm page={page} chosen={chosen} onClose={() => setOpen(null)} />}
          {open === "file" && <FileImport what="reports" onClose={() => setOpen(null)} />}
          {reports.length === 0 && <Text>No report yet. Ask your supplier for the yearly one: its ions say what a pen cannot.</Text>}
          <Grid templateColumns="repeat(auto-fit, minmax(min(340px, 100%), 1fr))" gap="4">
            {reports.map((r) => <Report key={r.id} report={r} today={page.today} />)}
          </Grid>
        </>
      )}
    </Loaded>
  )
}

function Report({ report: r, today }: { report: Schemas["ReportOut"]; today: string }) {
  const undo = useUndo()
  const notice = useNotice()
  const known = useQuantities()
  const v = r.review
  const path = { params: { path: { report_id: r.id } } }
  const whole = { kind: "fetch" as const, key: `report-${r.id}`, load: async () => (await answer(client.GET("/api/reports/{report_id}/working", path))).working }
  const balance = { kind: "fetch" as const, key: `balance-${r.id}`, load: async () => (await answer(client.GET("/api/reports/{report_id}/balance", path))).working }
  return (
    <Box borderWidth="1px" borderRadius="md" p="3">
      <Text fontWeight="semibold">{r.water}, {day(r.on, today)}</Text>
      <Text fontSize="sm" color="fg.muted">{r.laboratory}</Text>
      {v && (
        <>
          {v.sentences.map((s) => <Text key={s} mt="1">{s}</Text>)}
          {v.balance.causes.map((c) => <Text key={c} mt="1" color="state.warn">Possible cause: {c}.</Text>)}
          <Facts rows={[
            ["Cations and anions", <span key="c"><Quantity label="Cations" value={v.balance.cations_meq_L} unit="and" working={balance} /> <Quantity label="Anions" value={v.balance.anions_meq_L} unit="meq/L" working={balance} /></span>],
            ["Charge error", <Quantity key="e" label="Charge error" value={v.balance.error_pct} unit="%" working={balance} />],
            ["EC computed from the ions", <Quantity key="k" label="EC computed" kind="ec" value={v.computed_uS_cm} working={whole} />],
            ["EC reported", <Quantity key="r" label="EC reported" kind="ec" value={v.reported_uS_cm} none="not stated" />],
            ["Hardness", <Quantity key="h" label="Hardness" value={v.hardness_mg_L_CaCO3} unit="mg/L CaCO3" working={whole} none="needs calcium and magnesium" />],
            ["Carbonate hardness", <Quantity key="ch" label="Carbonate hardness" value={v.carbonate_hardness_mg_L_CaCO3} unit="mg/L CaCO3" working={whole} none="needs alkalinity" />],
            ["Alkalinity", <Quantity key="a" label="Alkalinity" value={v.alkalinity_mg_L_CaCO3} unit="mg/L CaCO3" />],
            ["Sodium against hardness, SAR", <Quantity key="s" label="SAR" value={v.sar} unit="" working={whole} none="needs sodium, calcium, magnesium" />],
            ["Not in it", v.balance.missing.join(", ") || "nothing of the main ions"],
          ]} />
        </>
      )}
      <Box as="details" mt="2">
        <Box as="summary" cursor="pointer" py="1" fontSize="sm">Its {r.lines.length} lines</Box>
        <Text fontSize="sm">{r.lines.map((l) => `${known.find((k) => k.id === l.quantity)?.label ?? l.quantity} ${l.typed} ${l.unit}`.trim()).join(" · ")}</Text>
      </Box>
      <Button size="sm" variant="outline" mt="2" aria-label={`Take back the report on ${r.water}`} onClick={() => { undo("report", r.id); notice({ text: "Report taken back.", undo: () => undo("report", r.id, true) }) }}>Take back</Button>
    </Box>
  )
}
