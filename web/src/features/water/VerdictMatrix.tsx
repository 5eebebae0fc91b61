import { Box, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { remediesQuery } from "../../api/waterQueries"
import { saltColour } from "../../app/ramp"
import { DataTable } from "../../ui/DataTable"
import { figure } from "../../ui/format"
import { Quantity } from "../../ui/Quantity"
import { AnyPlant } from "./AnyPlant"

type Props = { page: Schemas["WaterPage"]; chosen?: number; onChoose: (id: number) => void }

/** Two lines for each water: amount and kind; the chosen water group by group, with what to do. */
export function VerdictMatrix({ page, chosen, onChoose }: Props) {
  const verdicts = page.verdicts.filter((v) => v.water_id === chosen)
  const water = page.waters.find((w) => w.id === chosen)
  return (
    <>
      {page.waters.map((w) => (
        <Box key={w.id} asChild w="100%" textAlign="left" py="2" px="2" mx="-2" borderTopWidth="1px" bg={w.id === chosen ? "bg.subtle" : undefined} cursor="pointer">
          <button type="button" aria-pressed={w.id === chosen} onClick={() => onChoose(w.id)}>
            <Grid gap={{ base: "1", md: "3" }} templateColumns={{ base: "minmax(0,1fr)", md: "150px 170px minmax(0,1fr) 110px" }} alignItems="baseline">
              <Flex align="center" gap="2" fontWeight="semibold">
                <Box boxSize="12px" flex="none" borderWidth="1px" borderColor="border.strong" style={{ background: w.ec25_uS_cm === null ? "none" : saltColour(w.ec25_uS_cm) }} />
                {w.name}
              </Flex>
              <Text>{w.ec25_uS_cm !== null && `${figure(Math.round(w.ec25_uS_cm), 6)} · `}{w.amounts}</Text>
              <Text color="fg.muted">{w.kind_line}</Text>
              <Text color="fg.muted">{w.price_per_L === null ? "price not known" : `${w.price_per_L} per litre`}</Text>
            </Grid>
          </button>
        </Box>
      ))}
      {water && verdicts.length > 0 && (
        <Box mt="3">
          <Text fontWeight="semibold" mb="1">{water.name}, plant by plant</Text>
          <Plants page={page} water={water} verdicts={verdicts} />
          <AnyPlant page={page} water={water} />
        </Box>
      )}
    </>
  )
}

function Plants({ page, water, verdicts }: { page: Schemas["WaterPage"]; water: Schemas["WaterOut"]; verdicts: Schemas["VerdictOut"][] }) {
  const remedies = useQuery(remediesQuery(water.id)).data
  return (
    <DataTable label={`Verdicts on ${water.name}`} head={["Plant", "Amount", "Kind", "Cheapest remedy"]} minW="640px">
      {verdicts.map((v) => {
        const group = page.groups.find((g) => g.profile_id === v.profile_id)
        const remedy = remedies?.find((r) => r.profile_id === v.profile_id)?.remedy
        return (
          <tr key={v.profile_id}>
            <td>{group?.short}</td>
            <td><b>{v.amount}</b> · <Verdict v={v} limit={group?.ec_max_uS_cm} /></td>
            <td><b>{v.kind}</b> · {v.kind_line}</td>
            <td>{remedy && <>{remedy.sentence}{remedy.alternative && ` Or: ${remedy.alternative}`}{remedy.action !== "as it is" && remedy.price_per_L !== null && remedy.price_per_L > 0 && <> <Quantity label={`Price for ${group?.short}`} value={remedy.price_per_L} unit="per litre" working={{ kind: "fetch", key: `remedy-${v.water_id}-${v.profile_id}`, load: async () => (await answer(client.GET("/api/waters/{water_id}/remedies/{profile_id}", { params: { path: { water_id: v.water_id, profile_id: v.profile_id } } }))).working }} /></>}</>}</td>
          </tr>
        )
      })}
    </DataTable>
  )
}

function Verdict({ v, limit }: { v: Schemas["VerdictOut"]; limit?: number }) {
  return (
    <>
      at most <Quantity label="Limit" kind="ec" value={limit} working={{ kind: "fetch", key: `verdict-${v.water_id}-${v.profile_id}`, load: async () => (await answer(client.GET("/api/waters/{water_id}/verdict/{profile_id}", { params: { path: { water_id: v.water_id, profile_id: v.profile_id } } }))).working }} />, {v.amount_line.split(", ").slice(1).join(", ")}
    </>
  )
}
