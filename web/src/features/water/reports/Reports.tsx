import { Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { reportsQuery } from "../../../api/waterQueries"
import { Loaded } from "../../../ui/Page"
import { FileImport } from "../reading/FileImport"
import { ReportForm } from "./ReportForm"
import { Report } from "./Report"

/** Water reports: what is in it, does it balance, what follows, what is missing. */
export function Reports({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const [open, setOpen] = useState<"type" | "file" | null>(null)
  return (
    <Loaded query={useQuery(reportsQuery)}>
      {(reports) => (
        <>
          <Flex gap="2" mb="3" wrap="wrap">
            <Button onClick={() => setOpen("type")}>Type a report</Button>
            <Button variant="outline" onClick={() => setOpen("file")}>
              Read reports from a file
            </Button>
            {reports.length > 0 && (
              <Button asChild variant="outline">
                <a href="/api/reports.csv" download>
                  Save all as CSV
                </a>
              </Button>
            )}
          </Flex>
          {open === "type" && (
            <ReportForm page={page} chosen={chosen} onClose={() => setOpen(null)} />
          )}
          {open === "file" && <FileImport what="reports" onClose={() => setOpen(null)} />}
          {reports.length === 0 && (
            <Text>
              No report yet. Ask your supplier for the yearly one: its ions say what a pen cannot.
            </Text>
          )}
          <Grid templateColumns="repeat(auto-fit, minmax(min(340px, 100%), 1fr))" gap="4">
            {reports.map((r) => (
              <Report key={r.id} report={r} today={page.today} />
            ))}
          </Grid>
        </>
      )}
    </Loaded>
  )
}
