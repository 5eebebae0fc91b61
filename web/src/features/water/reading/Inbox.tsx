import { Box, Button, Flex, NativeSelect, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { inboxQuery } from "../../../api/waterQueries"
import { amount, figure, moment } from "../../../ui/format"
import { useNotice } from "../../../ui/noticeContext"
import { Loaded } from "../../../ui/Page"
import { Quantity } from "../../../ui/Quantity"
import { usePress } from "../../../ui/usePress"
import { useUndo } from "../../../ui/useUndo"
import { FileImport } from "./FileImport"

/** What loggers posted and waits for its water; readings as files. */
export function Inbox({ page, chosen }: { page: Schemas["WaterPage"]; chosen: number }) {
  const [file, setFile] = useState(false)
  return (
    <>
      <Flex gap="2" mb="3" wrap="wrap">
        <Button variant="outline" onClick={() => setFile(true)}>
          Read readings from a file
        </Button>
        <Button asChild variant="outline">
          <a href="/api/readings.csv" download>
            Save all readings as CSV
          </a>
        </Button>
      </Flex>
      {file && <FileImport what="readings" onClose={() => setFile(false)} />}
      <Loaded query={useQuery(inboxQuery)}>
        {(entries) =>
          entries.length === 0 ? (
            <Text>
              The inbox is empty. A home-built logger posts SenML (RFC 8428) to{" "}
              <code>/api/inbox/senml</code> on this machine: conductivity in S/m, temperature in
              Cel, pH.
            </Text>
          ) : (
            entries.map((e) => <Entry key={e.id} entry={e} page={page} chosen={chosen} />)
          )
        }
      </Loaded>
    </>
  )
}

function Entry({
  entry: e,
  page,
  chosen,
}: {
  entry: Schemas["InboxOut"]
  page: Schemas["WaterPage"]
  chosen: number
}) {
  const [water, setWater] = useState(String(chosen))
  const notice = useNotice()
  const undo = useUndo()
  const keep = usePress<string, Schemas["ReadingOut"]>(
    (id, key) =>
      answer(
        client.POST("/api/inbox/{entry_id}/keep", {
          params: { ...keyed(key), path: { entry_id: e.id } },
          body: { water_id: Number(id) },
        }),
      ),
    (r) =>
      notice({
        text:
          r.ec25_uS_cm === null
            ? "Saved: what was tested."
            : `Saved: ${amount(r.ec25_uS_cm, "µS/cm")} at ${amount(25, "°C")}.`,
        undo: () => undo("reading", r.id),
      }),
  )
  return (
    <Flex gap="3" wrap="wrap" align="center" py="2" borderTopWidth="1px">
      <Box flex="1 1 220px">
        <Text>
          <Quantity label="Conductivity" kind="ec" value={e.ec_uS_cm} />
          {e.temperature_C !== null && ` at ${amount(e.temperature_C, "°C")}`}
          {e.pH !== null && `, pH ${figure(e.pH)}`}
        </Text>
        <Text fontSize="sm" color="fg.muted">
          {e.meter ?? e.device}, {moment(new Date(`${e.at}Z`))}
        </Text>
      </Box>
      <NativeSelect.Root w="180px">
        <NativeSelect.Field
          aria-label="Water it was taken in"
          value={water}
          onChange={(x) => setWater(x.target.value)}
          minH="44px"
          bg="bg.panel"
        >
          {page.waters.map((w) => (
            <option key={w.id} value={w.id}>
              {w.name}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator aria-hidden />
      </NativeSelect.Root>
      <Button loading={keep.isPending} onClick={() => keep.mutate(water)}>
        Save as a reading
      </Button>
      <Button
        variant="outline"
        onClick={() => {
          undo("inbox entry", e.id)
          notice({ text: "Delete.", undo: () => undo("inbox entry", e.id, true) })
        }}
      >
        Delete
      </Button>
      {keep.isError && (
        <Text role="alert" color="state.stop" w="100%">
          {keep.error.message}
        </Text>
      )}
    </Flex>
  )
}
