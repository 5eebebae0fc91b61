import { Box, Heading, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { MoreRows } from "../../ui/MoreRows"
import { Card } from "../../ui/Page"
import { useRowsHere } from "../../ui/useRowsHere"
import { NameLink } from "../../ui/NameLink"

const AT_ONCE = 20

/** Pots that are felt or looked at before anything is poured, each with what ends it. */
export function Looks({ page: { plan, left } }: { page: Schemas["RoundPage"] }) {
  const rows = useRowsHere(plan.looks, AT_ONCE, left.looks)
  if (plan.looks.length === 0) return null
  return (
    <Box as="section">
      <Heading as="h2" fontSize="md" fontWeight="semibold" mb="2">
        Look first
      </Heading>
      <Card py="1">
        {rows.shown.map((l) => (
          <Box
            key={`${l.pot_id}${l.reason}`}
            py="2"
            borderBottomWidth="1px"
            _last={{ borderBottomWidth: 0 }}
          >
            <NameLink to={`/pots/${l.pot_id}`}>
              {l.code} {l.name}
            </NameLink>
            <Text color="fg.muted">{l.reason}</Text>
            <Text color="fg.muted">Ends: {l.release}</Text>
          </Box>
        ))}
        <MoreRows left={rows.left} query={rows.query} />
      </Card>
    </Box>
  )
}
