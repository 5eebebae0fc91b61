import { Box, Flex, NativeSelect, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { answer, client } from "../../api/client"
import { useOptions } from "../../api/queries"
import { Quantity } from "../../ui/Quantity"

/** The same question for a kind of plant that is not kept here yet. */
export function AnyPlant({
  page,
  water,
}: {
  page: Schemas["WaterPage"]
  water: Schemas["WaterOut"]
}) {
  const [profile, setProfile] = useState("")
  const others =
    useOptions()?.profiles.filter((p) => !page.groups.some((g) => g.profile_id === p.value)) ?? []
  const path = { water_id: water.id, profile_id: profile }
  const verdict = useQuery({
    queryKey: ["any-verdict", water.id, profile],
    queryFn: () =>
      answer(client.GET("/api/waters/{water_id}/verdict/{profile_id}", { params: { path } })),
    enabled: profile !== "",
  }).data
  const remedy = useQuery({
    queryKey: ["any-remedy", water.id, profile],
    queryFn: () =>
      answer(client.GET("/api/waters/{water_id}/remedies/{profile_id}", { params: { path } })),
    enabled: profile !== "",
  }).data
  if (others.length === 0) return null
  return (
    <Flex gap="3" wrap="wrap" align="center" mt="3">
      <NativeSelect.Root w="260px">
        <NativeSelect.Field
          aria-label="Another kind of plant"
          value={profile}
          onChange={(e) => setProfile(e.target.value)}
          minH="44px"
          bg="bg.panel"
        >
          <option value="">And another plant?</option>
          {others.map((p) => (
            <option key={p.value} value={p.value}>
              {p.label}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator aria-hidden />
      </NativeSelect.Root>
      {profile !== "" && verdict && (
        <Box aria-live="polite" flex="1 1 260px">
          <Text>
            <b>{verdict.result.amount}</b> · at most{" "}
            <Quantity
              label="Limit"
              kind="ec"
              value={verdict.result.limit_uS_cm}
              working={{ kind: "here", working: verdict.working }}
            />
            ; <b>{verdict.result.kind}</b> · {verdict.result.kind_line}
          </Text>
          {remedy && (
            <Text color="fg.muted">
              {remedy.result.sentence}
              {remedy.result.alternative && ` Or: ${remedy.result.alternative}`}
            </Text>
          )}
        </Box>
      )}
    </Flex>
  )
}
