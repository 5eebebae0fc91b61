import { Box, Text } from "@chakra-ui/react"
import { Link } from "react-router"
import { Card } from "../../ui/Page"
import type { Wrong } from "./queries"

const ORDER = [
  "right",
  "check first",
  "expected",
  "watch",
  "isolate",
  "correction",
  "caution",
  "hold",
]
const HEADS: Record<string, string> = { hold: "On hold meanwhile" }

/** What to know now, and what waits until the answer is there. */
export function Meanwhile({ page }: { page: Wrong }) {
  const said = [...page.advice.sayings].sort(
    (a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind),
  )
  const waits = said.filter((s) => s.kind === "hold")
  const now = said.filter((s) => s.kind !== "hold")
  return (
    <>
      <Card title="Now">
        {now.map((s) => (
          <Text
            key={s.words}
            borderTopWidth="1px"
            py="1.5"
            color={s.kind === "isolate" || s.kind === "caution" ? "state.caution" : undefined}
          >
            {s.words}
          </Text>
        ))}
        {page.advice.advised.map((a) => (
          <Text key={a} fontWeight="semibold">
            Supported by the log: {a}.{" "}
            {a === "flush" && (
              <Link to="/flush" style={{ textDecoration: "underline" }}>
                Open the flush
              </Link>
            )}
          </Text>
        ))}
      </Card>
      <Card title={HEADS.hold}>
        {waits.map((s) => (
          <Box key={s.words} borderTopWidth="1px" py="1.5">
            {s.words}
          </Box>
        ))}
      </Card>
    </>
  )
}
