import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { answer, client, type Schemas } from "../../../api/client"
import { day } from "../../../ui/format"
import { PotRail } from "../../../ui/PotRail"
import { Quantity } from "../../../ui/Quantity"
import { NameLink } from "../../../ui/NameLink"

/** Pots one under the other, each with its rail. */
export function PotList({
  rows,
  today,
  onChange,
}: {
  rows: Schemas["PotRow"][]
  today: string
  onChange: (id: number) => void
}) {
  return (
    <Box as="ul" listStyleType="none" bg="bg.panel" borderWidth="1px" borderRadius="lg">
      {rows.map((r) => (
        <Row key={r.id} row={r} today={today} onChange={onChange} />
      ))}
    </Box>
  )
}

/** The predicted reading of a pot, with its working on demand. */
export const Reading = ({ row }: { row: Schemas["PotRow"] }) => (
  <Quantity
    label={`Predicted reading of ${row.code}`}
    kind="ec"
    value={row.reading_uS_cm}
    none="no pour yet"
    bare
    working={{
      kind: "fetch",
      key: `pot-${row.id}`,
      load: () =>
        answer(
          client.GET("/api/pots/{pot_id}/root-zone", { params: { path: { pot_id: row.id } } }),
        ),
    }}
  />
)

function Row({
  row,
  today,
  onChange,
}: {
  row: Schemas["PotRow"]
  today: string
  onChange: (id: number) => void
}) {
  return (
    <Grid
      as="li"
      templateColumns={{
        base: "minmax(0,1fr) auto",
        md: "minmax(0,1.5fr) minmax(0,1.4fr) 92px minmax(0,1.6fr) auto",
      }}
      gapX="4"
      gapY="1"
      alignItems="center"
      px="4"
      py="2"
      borderTopWidth="1px"
      _first={{ borderTopWidth: 0 }}
    >
      <Box minW="0">
        <NameLink to={`/pots/${row.id}`}>
          {row.code} {row.name}
        </NameLink>
        <Text fontSize="sm" color="fg.muted" truncate>
          {row.phase} · {row.place}
          {row.spot ? `, ${row.spot}` : ""}
          {row.tags.length > 0 && ` · ${row.tags.join(", ")}`}
        </Text>
      </Box>
      <Box gridRow={{ base: 2, md: "auto" }} gridColumn={{ base: "1 / -1", md: "auto" }}>
        <PotRail row={row} />
      </Box>
      <Flex justify="flex-end">
        <Reading row={row} />
      </Flex>
      <Text fontSize="sm" color="fg.muted" gridColumn={{ base: "1 / -1", md: "auto" }}>
        {row.holds.find((h) => !h.standing && !h.word)?.reason ??
          [
            row.last_pour_on && `poured ${day(row.last_pour_on, today)}`,
            row.marks.length > 0 && `marks: ${row.marks.join(", ")}`,
          ]
            .filter(Boolean)
            .join(" · ")}
      </Text>
      <Button
        size="sm"
        variant="ghost"
        minH="44px"
        justifySelf="end"
        gridColumn={{ base: "1 / -1", md: "auto" }}
        display={{ base: "none", md: "inline-flex" }}
        aria-label={`Change ${row.code}`}
        onClick={() => onChange(row.id)}
      >
        Change
      </Button>
    </Grid>
  )
}
