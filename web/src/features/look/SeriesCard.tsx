import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { answer, client, keyed } from "../../api/client"
import { Entry } from "../../ui/Entry"
import { day } from "../../ui/format"
import { useNotice } from "../../ui/noticeContext"
import { Card } from "../../ui/Page"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"

const seriesQuery = queryOptions({
  queryKey: ["series"],
  queryFn: () => answer(client.GET("/api/series")),
})

/** Treatments given several times: each of their days is a job of the round. */
export function SeriesCard({ potId, today }: { potId: number; today: string }) {
  const kept = (useQuery(seriesQuery).data ?? []).filter((s) => s.pot_id === potId)
  const [what, setWhat] = useState("")
  const [days, setDays] = useState("1, 8, 15")
  const [on, setOn] = useState(today)
  const notice = useNotice()
  const undo = useUndo()
  const save = usePress(
    (_: null, key: string) =>
      answer(
        client.POST("/api/series", {
          params: keyed(key),
          body: { on, what, days: days.split(/[,;\s]+/).filter(Boolean), pot_id: potId, note: "" },
        }),
      ),
    (stored) => {
      notice({ text: "Treatment saved.", undo: () => undo("series", stored.id) })
      setWhat("")
    },
  )
  return (
    <Card title="Treatment in series" mt="4">
      {kept.map((s) => (
        <Flex key={s.id} gap="2" align="center" wrap="wrap">
          <Text flex="1">
            {s.what}: {s.days.map((d) => day(d, today)).join(", ")}
          </Text>
          <Button
            variant="ghost"
            minH="44px"
            aria-label={`Delete ${s.what}`}
            onClick={() => {
              undo("series", s.id)
              notice({ text: `${s.what} deleted.`, undo: () => undo("series", s.id, true) })
            }}
          >
            Delete
          </Button>
        </Flex>
      ))}
      <Box asChild>
        <form
          aria-label="Treatment in series"
          onSubmit={(e) => {
            e.preventDefault()
            save.mutate(null)
          }}
        >
          <Flex gap="2" wrap="wrap" align="flex-end" fontSize="sm">
            <Entry label="What is given" value={what} onValue={setWhat} />
            <Entry label="First day" type="date" w="160px" value={on} onValue={setOn} />
            <Entry label="On days" w="120px" value={days} onValue={setDays} />
            <Button type="submit" variant="outline" minH="44px" loading={save.isPending}>
              Add
            </Button>
          </Flex>
        </form>
      </Box>
      {save.error && (
        <Text role="alert" color="state.stop">
          {save.error.message}
        </Text>
      )}
    </Card>
  )
}
