import { Box, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { DataTable } from "../../ui/DataTable"
import { day, pourVolume } from "../../ui/format"

type Row = Schemas["AwayPage"]["plan"]["result"]["rows"][number]

/** What a helper holds in the hand: visits by day, then what to leave alone, then what lasts. */
export function HelperSheet({ page, today }: { page: Schemas["AwayPage"]; today: string }) {
  const { rows, visits } = page.plan.result
  const of = (id: number) => rows.find((r) => r.pot_id === id)
  const alone = rows.filter((r) => r.risk === "leave alone")
  const lasts = rows.filter((r) => r.risk === "none")
  return (
    <>
      {page.collection && (
        <Text fontWeight="semibold" mb="2">
          {page.collection}
        </Text>
      )}
      <Text mb="3">
        Plain water only, no feed. Put a finger in the pot first: if it is still wet, leave it and
        come again. Each line says what goes with it, and what not to do.
      </Text>
      {visits.map((v) => (
        <Box as="section" key={v.on} mb="4" aria-label={`Visit of ${day(v.on, today)}`}>
          <Text as="h2" fontWeight="semibold" mb="1">
            {day(v.on, today)}: {v.pot_ids.length} {v.pot_ids.length === 1 ? "pot" : "pots"}
          </Text>
          <DataTable
            label={`Pots of ${day(v.on, today)}`}
            head={["", "Pot", "Where", "Give", "Note"]}
            minW="560px"
            stacked
          >
            {v.pot_ids
              .flatMap((id) => of(id) ?? [])
              .map((r) => (
                <Visit key={r.pot_id} row={r} />
              ))}
          </DataTable>
        </Box>
      ))}
      {alone.length > 0 && <List title="Leave alone" rows={alone} />}
      {lasts.length > 0 && (
        <Text>
          <b>Lasts until you are back:</b> {lasts.map((r) => `${r.code} ${r.name}`).join(", ")}.
        </Text>
      )}
    </>
  )
}

function Visit({ row }: { row: Row }) {
  return (
    <tr>
      <td style={{ width: 28 }}>
        <Box
          aria-hidden
          boxSize="15px"
          borderWidth="1.5px"
          borderColor="border.strong"
          borderRadius="sm"
        />
      </td>
      <td>
        <b>{row.code}</b> {row.name}
      </td>
      <td data-head="Where">{row.place}</td>
      <td data-head="Give">
        {pourVolume(row.amount_mL)}
        {row.route === "tray"
          ? " into the tray"
          : row.route === "reservoir"
            ? " into the reservoir"
            : ""}
        , {row.water}
      </td>
      <td data-head="Note">
        {row.risk === "low" ? row.sentence : row.plain_only ? "Resting: water only." : ""}{" "}
        <b>{row.then}</b> {row.not_do}
      </td>
    </tr>
  )
}

function List({ title, rows }: { title: string; rows: Row[] }) {
  return (
    <Box as="section" mb="4">
      <Text as="h2" fontWeight="semibold">
        {title}
      </Text>
      {rows.map((r) => (
        <Text key={r.pot_id}>
          <b>{r.code}</b> {r.name}, {r.place}. {r.sentence}
        </Text>
      ))}
    </Box>
  )
}
