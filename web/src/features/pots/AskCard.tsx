import { Button, Flex } from "@chakra-ui/react"
import { Link } from "react-router"
import { Card } from "../../ui/Page"

/** Questions that a pot's own log answers. */
export function AskCard({ potId }: { potId: number }) {
  const asks = [
    { to: `/wrong/${potId}`, words: "What is wrong?" },
    { to: `/answer/${potId}`, words: "Did it help?" },
    { to: `/seasons/${potId}`, words: "Seasons" },
  ]
  return (
    <Card title="Ask the log">
      <Flex gap="2" wrap="wrap">
        {asks.map((a) => (
          <Button key={a.to} asChild variant="outline" minH="44px">
            <Link to={a.to}>{a.words}</Link>
          </Button>
        ))}
      </Flex>
    </Card>
  )
}
