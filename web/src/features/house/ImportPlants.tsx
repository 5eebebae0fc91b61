import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { FileButton } from "../../ui/FileButton"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { importPlants } from "./queries"

/** Plants of another grower, with their history, beside what is here. */
export function ImportPlants() {
  const notice = useNotice()
  const [file, setFile] = useState<File | null>(null)
  const bring = usePress(
    (f: File, key) => importPlants(f, key),
    (done) => {
      setFile(null)
      notice({ text: done.sentence })
    },
  )
  return (
    <>
      <FileButton
        label="Import plants"
        accept=".zip"
        onFile={(f) => {
          bring.reset()
          setFile(f)
        }}
      />
      {file && (
        <Box flexBasis="100%" order={9} borderTopWidth="1px" pt="3">
          <Text>
            <b>{file.name}</b>: its plants come in with their log under free codes, isolated at New
            arrivals. Waters and cans of the giver stay history.
          </Text>
          {bring.error && (
            <Text role="alert" color="state.stop">
              {bring.error.message}
            </Text>
          )}
          <Flex gap="3" mt="2" wrap="wrap">
            <Button minH="44px" loading={bring.isPending} onClick={() => bring.mutate(file)}>
              Import the plants
            </Button>
            <Button variant="outline" minH="44px" onClick={() => setFile(null)}>
              Cancel
            </Button>
          </Flex>
        </Box>
      )}
    </>
  )
}
