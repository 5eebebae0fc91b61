import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { answer, client, keyed } from "../../api/client"
import { useNotice } from "../../ui/noticeContext"
import { Card } from "../../ui/Page"
import { usePress } from "../../ui/usePress"
import { BackupLine } from "./BackupLine"
import { BackupList } from "./BackupList"
import { ImportFile } from "./ImportFile"
import { ImportPlants } from "./ImportPlants"
import { type Data, size } from "./queries"

/** Where the records are, how large, when they were last backed up; out, in, and back. */
export function YourData({ data }: { data: Data }) {
  const notice = useNotice()
  const [all, setAll] = useState(false)
  const make = usePress(
    (_: null, key) => answer(client.POST("/api/backups", { params: keyed(key) })),
    (made) => notice({ text: `Backed up, ${size(made.bytes)}, read back and whole.` }),
  )
  return (
    <Card title="Your data" gridColumn="1 / -1">
      <Text fontWeight="semibold">{data.sentence}</Text>
      {data.warning && (
        <Text role="status" color="state.stop">
          {data.warning}
        </Text>
      )}
      <Box maxW="640px" mt="2">
        <BackupLine backups={data.backups} />
      </Box>
      <Flex gap="3" wrap="wrap" mt="2">
        <Button minH="44px" loading={make.isPending} onClick={() => make.mutate(null)}>
          Back up now
        </Button>
        <Button asChild variant="outline" minH="44px">
          <a href="/api/archive.zip" download>
            Export everything
          </a>
        </Button>
        <ImportFile />
        <ImportPlants />
        {data.backups.length > 0 && (
          <Button
            variant="outline"
            minH="44px"
            aria-expanded={all}
            onClick={() => setAll((open) => !open)}
          >
            {all ? "Hide backups" : `Restore one of ${data.backups.length}`}
          </Button>
        )}
      </Flex>
      {make.error && (
        <Text role="alert" color="state.stop" mt="2">
          {make.error.message}
        </Text>
      )}
      {all && <BackupList backups={data.backups} />}
      <Text color="fg.muted" mt="3" overflowWrap="anywhere">
        Collection: {data.database}, {size(data.database_bytes)}; photos beside it{" "}
        {size(data.photos_bytes)}. Backups: {data.folder}, {size(data.free_bytes)} free on its disk.
        Kept of them: seven days, four weeks, twelve months. Another folder, best on another disk:
        start with --backups.
      </Text>
      <Text color="fg.muted">
        The export is a zip of tables any spreadsheet opens, with the photos;{" "}
        <a href="/api/archive.json" download style={{ textDecoration: "underline" }}>
          the tables as JSON
        </a>
        .
      </Text>
    </Card>
  )
}
