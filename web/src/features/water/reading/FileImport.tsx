import { Box, Button, Field, Flex, Text, Textarea } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../../api/client"
import { answer, client, keyed } from "../../../api/client"
import { FileText } from "../../../ui/FileText"
import { useNotice } from "../../../ui/noticeContext"
import { usePress } from "../../../ui/usePress"

const EXAMPLE = {
  readings:
    "water,date,value,unit,scale,temperature (°C),alkalinity (mg/L CaCO3)\nRain cistern,2026-11-20,35,µS/cm,,12,",
  reports:
    "water,date,laboratory,EC (µS/cm)," +
    "Ca (mg/L),Mg (mg/L),Na (mg/L),Cl (mg/L),SO4 (mg/L),NO3 (mg/L N),alkalinity (mmol/L),Fe (mg/L)\n" +
    "Borehole,2026-11-20,Laboratory,748,118,9,24,31,58,4.7,5.3,<0.02",
}

/** A CSV file, all of it or none; a refusal names row and column. */
export function FileImport({
  what,
  onClose,
}: {
  what: "readings" | "reports"
  onClose: () => void
}) {
  const [text, setText] = useState("")
  const notice = useNotice()
  const send = usePress<string, Schemas["Imported"]>(
    (body, key) =>
      answer(
        what === "readings"
          ? client.POST("/api/readings/import", { params: keyed(key), body: { text: body } })
          : client.POST("/api/reports/import", { params: keyed(key), body: { text: body } }),
      ),
    (r) => {
      notice({
        text: `${r.stored} ${what} saved${r.already_there ? `, ${r.already_there} stood there already` : ""}.`,
      })
      onClose()
    },
  )
  return (
    <Box
      as="section"
      aria-label={`Read ${what} from a file`}
      borderWidth="1px"
      borderColor="border.strong"
      borderRadius="lg"
      p="4"
      mb="4"
    >
      <Text mb="2">
        A CSV file, the columns named in its first row, the unit of each quantity beside its name.
        All of it is taken, or none.
      </Text>
      <FileText label={`CSV file of ${what}`} onText={setText} />
      <Field.Root mt="2">
        <Field.Label fontSize="sm">Or paste it here</Field.Label>
        <Textarea
          rows={5}
          value={text}
          onChange={(e) => setText(e.target.value)}
          data-own-unit
          placeholder={EXAMPLE[what]}
          fontFamily="mono"
          fontSize="sm"
          bg="bg.panel"
        />
      </Field.Root>
      {send.isError && (
        <Text role="alert" color="state.stop" mt="2">
          {send.error.message} Nothing was stored.
        </Text>
      )}
      <Flex gap="3" mt="3">
        <Button loading={send.isPending} disabled={!text.trim()} onClick={() => send.mutate(text)}>
          Take it in
        </Button>
        <Button variant="outline" data-back onClick={onClose}>
          Cancel
        </Button>
      </Flex>
    </Box>
  )
}
