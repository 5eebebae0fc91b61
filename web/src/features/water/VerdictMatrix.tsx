import { Box, Flex, Text } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { saltColour } from "../../app/ramp"
import { figure } from "../../ui/format"
import { Quantity } from "../../ui/Quantity"

type Props = { page: Schemas["WaterPage"]; chosen?: number; onChoose: (id: number) => void }

/** Two lines for each water: amount and kind; the chosen water group by group. */
export function VerdictMatrix({ page, chosen, onChoose }: Props) {
  const verdicts = page.verdicts.filter((v) => v.water_id === chosen)
  const water = page.waters.find((w) => w.id === chosen)
  return (
    <>
      {page.waters.map((w) => (
        <Box key={w.id} asChild w="100%" textAlign="left" py="2" px="2" mx="-2" borderTopWidth="1px" bg={w.id === chosen ? "bg.subtle" : undefined} cursor="pointer">
          <button type="button" aria-pressed={w.id === chosen} onClick={() => onChoose(w.id)}>
            <Flex gap="3" wrap="wrap" align="baseline">
              <Flex align="center" gap="2" flex="1 1 150px" fontWeight="semibold">
                <Box boxSize="12px" borderWidth="1px" borderColor="border.strong" style={{ background: w.ec25_uS_cm === null ? "none" : saltColour(w.ec25_uS_cm) }} />
                {w.name}
              </Flex>
              <Text flex="1 1 190px">{w.ec25_uS_cm !== null && `${figure(Math.round(w.ec25_uS_cm), 6)} · `}{w.amounts}</Text>
              <Text flex="2 1 220px" color="fg.muted">{w.kind_line}</Text>
              <Text color="fg.muted">{w.price_per_L === null ? "price not known" : `${w.price_per_L} per litre`}</Text>
            </Flex>
          </button>
        </Box>
      ))}
      {water && verdicts.length > 0 && (
        <Box mt="3" overflowX="auto" tabIndex={0} role="region" aria-label={`Verdicts on ${water.name}`}>
          <Text fontWeight="semibold" mb="1">{water.name}, plant by plant</Text>
          <Box as="table" w="100%" fontSize="sm" minW="520px" css={{ "& th": { textAlign: "left", fontWeight: 500, color: "fg.muted", py: "1", pr: "3" }, "& td": { py: "1", pr: "3", borderTopWidth: "1px", verticalAlign: "top" } }}>
            <thead><tr><th scope="col">Plant</th><th scope="col">Amount</th><th scope="col">Kind</th></tr></thead>
            <tbody>
              {verdicts.map((v) => (
                <tr key={v.profile_id}>
                  <td>{page.groups.find((g) => g.profile_id === v.profile_id)?.short}</td>
                  <td><b>{v.amount}</b> · <Verdict v={v} limit={page.groups.find((g) => g.profile_id === v.profile_id)?.ec_max_uS_cm} /></td>
                  <td><b>{v.kind}</b> · {v.kind_line}</td>
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      )}
    </>
  )
}

function Verdict({ v, limit }: { v: Schemas["VerdictOut"]; limit?: number }) {
  return (
    <>
      at most <Quantity label="Limit" kind="ec" value={limit} working={{ kind: "fetch", key: `verdict-${v.water_id}-${v.profile_id}`, load: async () => (await answer(client.GET("/api/waters/{water_id}/verdict/{profile_id}", { params: { path: { water_id: v.water_id, profile_id: v.profile_id } } }))).working }} />, {v.amount_line.split(", ").slice(1).join(", ")}
    </>
  )
}
