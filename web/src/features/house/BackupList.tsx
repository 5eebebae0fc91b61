import { Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { answer, client } from "../../api/client"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { type Backup, size } from "./queries"

/** Each backup, and the way back to it, asked twice. */
export function BackupList({ backups }: { backups: Backup[] }) {
  const notice = useNotice()
  const [asked, setAsked] = useState<string | null>(null)
  const restore = usePress(
    (name: string) =>
      answer(client.POST("/api/backups/{name}/restore", { params: { path: { name } } })),
    (r) => {
      setAsked(null)
      notice({ text: r.sentence })
    },
  )
  return (
    <Flex as="ul" direction="column" mt="3" listStyleType="none" role="list">
      {backups.map((b) => (
        <Flex
          as="li"
          key={b.name}
          gap="3"
          py="1"
          align="center"
          wrap="wrap"
          borderTopWidth="1px"
          minH="52px"
        >
          <Text flex="1" minW="200px">
            {b.age}, {b.why}
            <Text as="span" color="fg.muted">
              {" "}
              {size(b.bytes)}
            </Text>
          </Text>
          {asked === b.name ? (
            <>
              <Text>
                Turn the whole collection back to this? What stands now is backed up first.
              </Text>
              <Button
                minH="44px"
                loading={restore.isPending}
                onClick={() => restore.mutate(b.name)}
              >
                Restore
              </Button>
              <Button variant="outline" minH="44px" onClick={() => setAsked(null)}>
                Cancel
              </Button>
            </>
          ) : (
            <Button
              variant="outline"
              minH="44px"
              aria-label={`Restore the backup of ${b.age}, ${b.why}`}
              onClick={() => setAsked(b.name)}
            >
              Restore
            </Button>
          )}
        </Flex>
      ))}
      {restore.error && (
        <Text role="alert" color="state.stop">
          {restore.error.message}
        </Text>
      )}
    </Flex>
  )
}
