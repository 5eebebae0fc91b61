import { Box, Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link, useSearchParams } from "react-router"
import { roundOnQuery, useSettings } from "../../api/queries"
import type { Schemas } from "../../api/client"
import { DataTable } from "../../ui/DataTable"
import { amount, day, expected, pourVolume } from "../../ui/format"
import { Loaded, PageHead } from "../../ui/Page"
import { A4 } from "../../ui/sheet"

/** A day's round on paper: cans with their weighing, pots in walking order with a box to tick. */
export function RoundSheet() {
  const on = useSearchParams()[0].get("on") ?? undefined
  return (
    <Loaded query={useQuery(roundOnQuery(on))}>
      {(page) => <Sheet page={page} ahead={on !== undefined} />}
    </Loaded>
  )
}

function Sheet({ page, ahead }: { page: Schemas["RoundPage"]; ahead: boolean }) {
  const name = useSettings()?.collection_name
  const { plan } = page
  return (
    <Box css={A4}>
      <PageHead
        title={`Round of ${day(page.today)}`}
        line={[
          name && `${name}.`,
          `${plan.pots_due} pots in ${plan.cans.length} cans.`,
          ahead && "Worked out ahead: as if nothing were poured before.",
        ]
          .filter(Boolean)
          .join(" ")}
      >
        <Button data-screen-only asChild variant="outline" minH="44px">
          <Link to="/">Back</Link>
        </Button>
        <Button data-screen-only minH="44px" onClick={() => window.print()}>
          Print
        </Button>
      </PageHead>
      {plan.cans.map((can) => (
        <Box as="section" key={can.letter} mb="4" aria-label={`Can ${can.letter}`}>
          <Text as="h2" fontWeight="semibold">
            Can {can.letter} · {can.title}
          </Text>
          <Text>
            {can.water_name} {amount(can.volume_L, "L")}
            {can.product ? `, ${can.product}` : ""}
            {can.weighing ? `, ${can.weighing}` : ""}
            {can.job === "feed"
              ? `. Expect ${expected(can.ec_low_uS_cm, can.ec_high_uS_cm)} at 25 °C; it read ______`
              : "."}
          </Text>
          <DataTable
            label={`Pots of can ${can.letter}`}
            head={["", "Pot", "Where", "Give", "Ran out, reads", "Note"]}
            minW="600px"
          >
            {can.pots.map((p) => (
              <tr key={p.pot_id}>
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
                  <b>{p.code}</b> {p.name}
                  {p.isolated ? ", isolated" : ""}
                </td>
                <td>{p.place}</td>
                <td style={{ whiteSpace: "nowrap" }}>
                  {pourVolume(p.amount_mL)}
                  {p.route === "tray" ? " tray" : ""}
                </td>
                <td />
                <td>{p.then}</td>
              </tr>
            ))}
          </DataTable>
        </Box>
      ))}
      {plan.cans.length === 0 && <Text>Nothing to pour.</Text>}
      {plan.clean_hands && <Text mb="2">{plan.clean_hands}</Text>}
      {plan.looks.length > 0 && (
        <Text as="h2" fontWeight="semibold" mt="3">
          Look first
        </Text>
      )}
      {plan.looks.map((l) => (
        <Text key={`${l.pot_id}${l.reason}`}>
          <b>{l.code}</b> {l.name}. {l.reason} Ends: {l.release}
        </Text>
      ))}
      {page.jobs.length > 0 && (
        <Text as="h2" fontWeight="semibold" mt="3">
          Besides water
        </Text>
      )}
      {page.jobs.map((j) => (
        <Text key={j.id}>
          {j.title}. {j.sentence}
        </Text>
      ))}
    </Box>
  )
}
