import { Box, Button, Flex, Heading, Input, Text } from "@chakra-ui/react"
import { useState } from "react"
import { Link } from "react-router"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { day } from "../../ui/format"
import { MoreRows } from "../../ui/MoreRows"
import { Card } from "../../ui/Page"
import { useNotice } from "../../ui/noticeContext"
import { usePress } from "../../ui/usePress"
import { useRowsHere } from "../../ui/useRowsHere"
import { useUndo } from "../../ui/useUndo"

type Job = Schemas["ErrandOut"]
const FIRST = 5
const AT_ONCE = 40 // once opened
const WHERE: Partial<Record<Job["kind"], string>> = {
  "meter check": "/water",
  "water re-test": "/water",
  membrane: "/water",
}

/** Jobs besides water, the oldest first; each done, put off, or settled where it belongs. */
export function Jobs({
  jobs,
  today,
  title = "Besides water",
  missing = 0,
}: {
  jobs: Job[]
  missing?: number
  today: string
  title?: string
}) {
  const [opened, setOpened] = useState(false)
  const rows = useRowsHere(jobs, AT_ONCE, missing)
  if (jobs.length === 0) return null
  const shown = opened ? rows.shown : jobs.slice(0, FIRST)
  return (
    <Box as="section">
      <Heading as="h2" fontSize="md" fontWeight="semibold" mb="2">
        {title}
      </Heading>
      <Card py="1">
        {shown.map((j) => (
          <One key={j.id} job={j} today={today} />
        ))}
        {opened ? (
          <MoreRows left={rows.left} query={rows.query} />
        ) : (
          jobs.length > FIRST && (
            <Button variant="ghost" size="sm" minH="44px" onClick={() => setOpened(true)}>
              {jobs.length + missing - FIRST} more
            </Button>
          )
        )}
      </Card>
    </Box>
  )
}

function One({ job, today }: { job: Job; today: string }) {
  const notice = useNotice()
  const undo = useUndo()
  const body = { id: job.id, kind: job.kind, due_on: job.due_on, pot_id: job.pot_id, on: today }
  const kept = (word: string) => (stored: Schemas["Stored"]) =>
    notice({ text: `${job.title}: ${word}.`, undo: () => undo("event", stored.id) })
  const [found, setFound] = useState("")
  const done = usePress(
    (_: null, key) =>
      answer(client.POST("/api/jobs/done", { params: keyed(key), body: { ...body, note: found } })),
    kept("done"),
  )
  const later = usePress(
    (_: null, key) =>
      answer(
        client.POST("/api/jobs/later", {
          params: keyed(key),
          body: { ...body, note: "", days: 7 },
        }),
      ),
    kept("in a week"),
  )
  const to = job.pot_id === null ? (WHERE[job.kind] ?? "/") : `/pots/${job.pot_id}`
  return (
    <Box py="2" borderBottomWidth="1px" _last={{ borderBottomWidth: 0 }}>
      <Link to={to}>
        <Text
          as="span"
          fontWeight="semibold"
          textDecoration="underline"
          textUnderlineOffset="0.2em"
        >
          {job.title}
        </Text>
      </Link>
      <Text color="fg.muted">
        {job.sentence}{" "}
        {job.late_days > 0
          ? `Since ${day(job.due_on, today)}.`
          : job.late_days < 0
            ? `On ${day(job.due_on, today)}.`
            : ""}
      </Text>
      {job.late_days >= 0 && (
        <Flex gap="2" mt="1" wrap="wrap" data-screen-only>
          {job.kind === "stock-take" && (
            <Input
              aria-label={`Counted: ${job.title}`}
              placeholder="how many, how firm"
              value={found}
              onChange={(e) => setFound(e.target.value)}
              minH="40px"
              w="220px"
            />
          )}
          {job.done_here && (
            <Button
              size="sm"
              minH="40px"
              variant="outline"
              aria-label={`Done: ${job.title}`}
              loading={done.isPending}
              onClick={() => done.mutate(null)}
            >
              Done
            </Button>
          )}
          <Button
            size="sm"
            minH="40px"
            variant="ghost"
            aria-label={`In a week: ${job.title}`}
            loading={later.isPending}
            onClick={() => later.mutate(null)}
          >
            In a week
          </Button>
        </Flex>
      )}
    </Box>
  )
}
