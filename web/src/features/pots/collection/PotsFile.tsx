import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { Card } from "../../../ui/Page"
import { FileText } from "../../../ui/FileText"
import { useNotice } from "../../../ui/noticeContext"
import { usePress } from "../../../ui/usePress"

/** The collection out to a file and in from one: all of it, or nothing with the row and the reason. */
export function PotsFile({ onClose }: { onClose: () => void }) {
  const [text, setText] = useState("")
  const [change, setChange] = useState(false)
  const notice = useNotice()
  const take = usePress(
    (chosen: string, key) =>
      answer(
        client.POST("/api/pots/import", {
          params: keyed(key),
          body: { text: chosen, known: change ? "change" : "refuse" },
        }),
      ),
    (done: Schemas["PotsTaken"]) => {
      notice({ text: `${done.added} added, ${done.changed} changed.` })
      onClose()
    },
  )
  return (
    <Card title="The collection as a file" label="The collection as a file" mb="4">
      <Text color="fg.muted">
        CSV, one row a pot. Needed: code and volume (L). Plants: “paphiopedilum: the old one x3;
        masdevallia”. Medium: “bark_mix”, or parts: “2 bark_fine + 1 perlite”.
      </Text>
      <Flex gap="3" mt="3" wrap="wrap" align="center">
        <Button asChild variant="outline" minH="44px">
          <a href="/api/pots.csv" download="pots.csv">
            Take the file out
          </a>
        </Button>
        <Box
          asChild
          minH="44px"
          display="flex"
          flexWrap="wrap"
          alignItems="center"
          gap="2"
          maxW="100%"
        >
          <label>
            <span aria-hidden>File to import</span>{" "}
            <FileText label="File to import" onText={setText} />
          </label>
        </Box>
      </Flex>
      <Box asChild display="inline-flex" alignItems="center" gap="2" minH="44px">
        <label>
          <input
            type="checkbox"
            checked={change}
            onChange={(e) => setChange(e.target.checked)}
            style={{ width: 20, height: 20 }}
          />
          Rows of codes that exist change those pots
        </label>
      </Box>
      {take.isError && (
        <Text role="alert" color="state.stop">
          {take.error.message} Nothing was taken.
        </Text>
      )}
      <Flex gap="3" mt="2">
        <Button
          minH="48px"
          disabled={!text}
          loading={take.isPending}
          onClick={() => take.mutate(text)}
        >
          Take it in
        </Button>
        <Button variant="outline" data-back minH="48px" onClick={onClose}>
          Cancel
        </Button>
      </Flex>
    </Card>
  )
}
