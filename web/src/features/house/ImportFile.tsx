import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { Choice } from "../../ui/Choice"
import { FileButton } from "../../ui/FileButton"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { ConflictTable } from "./ConflictTable"
import { type Conflicts, importFile, type Preview, preview } from "./queries"

/** A file chosen, what it would bring shown, then taken in whole or not at all. */
export function ImportFile() {
  const notice = useNotice()
  const [file, setFile] = useState<File | null>(null)
  const [conflicts, setConflicts] = useState<Conflicts>("refuse")
  const look = usePress((f: File) => preview(f))
  const bring = usePress(
    (f: File) => importFile(f, conflicts),
    (done) => {
      setFile(null)
      look.reset()
      notice({ text: done.sentence })
    },
  )
  const choose = (chosen: File) => {
    setFile(chosen)
    setConflicts("refuse")
    bring.reset()
    look.mutate(chosen)
  }
  const error = bring.error ?? look.error
  return (
    <>
      <FileButton
        label="Import a file"
        accept=".zip,.json"
        loading={look.isPending}
        onFile={choose}
      />
      {file && (look.data || error) && (
        <Box flexBasis="100%" order={9} borderTopWidth="1px" pt="3">
          {look.data && <Brings preview={look.data} name={file.name} />}
          {error && (
            <Text role="alert" color="state.stop">
              {error.message}
            </Text>
          )}
          <Flex gap="3" mt="2" wrap="wrap" align="center">
            {look.data && look.data.conflicts.length > 0 && (
              <Choice
                label="Rows in conflict"
                value={conflicts}
                onValue={(v) => setConflicts(v as Conflicts)}
                choices={[
                  { value: "refuse", label: "Choose what stays" },
                  { value: "mine", label: "Mine stay" },
                  { value: "theirs", label: "The file’s replace mine" },
                ]}
              />
            )}
            {look.data?.anything && (
              <Button minH="44px" loading={bring.isPending} onClick={() => bring.mutate(file)}>
                Import
              </Button>
            )}
            <Button variant="outline" minH="44px" onClick={() => setFile(null)}>
              Cancel
            </Button>
          </Flex>
        </Box>
      )}
    </>
  )
}

function Brings({ preview, name }: { preview: Preview; name: string }) {
  const photos = preview.photos_new > 0 ? ` ${preview.photos_new} photos come with it.` : ""
  const missing =
    preview.photos_missing > 0 ? ` ${preview.photos_missing} photos are named but not in it.` : ""
  return (
    <>
      <Text>
        <b>{name}</b>: {preview.sentence}
        {photos}
        {missing}
      </Text>
      <ConflictTable rows={preview.conflicts} />
    </>
  )
}
