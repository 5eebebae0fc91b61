import { Button, Flex, Text } from "@chakra-ui/react"
import { FileButton } from "../../ui/FileButton"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"

/** Loggers of a place: bound once, and files of those that do not post. */
export function LoggerForm({ air }: { air: Schemas["AirPage"] }) {
  const notice = useNotice()
  const undo = useUndo()
  const bind = usePress(
    (device: string, key: string) =>
      answer(
        client.POST("/api/loggers", {
          params: keyed(key),
          body: { device, place_id: air.place_id },
        }),
      ),
    (stored) => notice({ text: "Logger bound.", undo: () => undo("logger", stored.id) }),
  )
  const read = usePress(
    (text: string, key: string) =>
      answer(
        client.POST("/api/places/{place_id}/air.csv", {
          params: { ...keyed(key), path: { place_id: air.place_id } },
          body: { text },
        }),
      ),
    (r) => notice({ text: `${r.stored} readings imported, ${r.already_there} there already.` }),
  )
  const error = bind.error ?? read.error
  return (
    <Flex gap="3" wrap="wrap" align="center" mt="3">
      {air.loggers.map((l) => (
        <Flex key={l.id} gap="2" align="center" minW="0">
          <Text overflowWrap="anywhere">Logger {l.device}</Text>
          <Button
            variant="outline"
            minH="44px"
            aria-label={`Delete the binding of ${l.device}`}
            onClick={() => {
              undo("logger", l.id)
              notice({ text: "Binding deleted.", undo: () => undo("logger", l.id, true) })
            }}
          >
            Delete
          </Button>
        </Flex>
      ))}
      {air.unbound.map((d) => (
        <Button
          key={d}
          variant="outline"
          minH="44px"
          loading={bind.isPending}
          onClick={() => bind.mutate(d)}
        >
          Bind {d}
        </Button>
      ))}
      <FileButton
        label="Import a logger’s file"
        accept=".csv,text/csv"
        onFile={(file) => void file.text().then((t) => read.mutate(t))}
      />
      {error && (
        <Text role="alert" color="state.stop">
          {error.message}
        </Text>
      )}
    </Flex>
  )
}
