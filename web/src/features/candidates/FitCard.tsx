import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { answer, client } from "../../api/client"
import { Choice } from "../../ui/Choice"
import { Entry } from "../../ui/Entry"
import { figure } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { usePress } from "../../ui/usePress"

const placesQuery = queryOptions({
  queryKey: ["places"],
  queryFn: () => answer(client.GET("/api/places")),
})

/** Fit before buying: the kind against a place as it was measured, and what a month of the difference costs. */
export function FitCard({ kind, pets }: { kind: string; pets: boolean }) {
  const places = useQuery(placesQuery).data ?? []
  const [place, setPlace] = useState("")
  const [price, setPrice] = useState("")
  const [litres, setLitres] = useState("")
  const [light, setLight] = useState("")
  const ask = usePress(() =>
    answer(
      client.POST("/api/candidates/fit", {
        body: {
          profile_id: kind,
          place_id: place ? Number(place) : null,
          litres_month: litres || null,
          price_kWh: price || null,
          asks_light: light || null,
          pets,
        },
      }),
    ),
  )
  const found = ask.data
  return (
    <Card title="Against a place as it was measured" mt="4">
      <Flex gap="3" wrap="wrap" align="flex-end">
        <Choice
          label="Place"
          value={place}
          onValue={setPlace}
          choices={[
            { value: "", label: "no place yet" },
            ...places.map((p) => ({ value: String(p.id), label: p.name })),
          ]}
        />
        <Entry label="Litres a month" w="130px" numeric value={litres} onValue={setLitres} />
        <Entry label="Price of a kWh" w="130px" numeric value={price} onValue={setPrice} />
        <Entry
          label="Light it asks, mol a day"
          w="170px"
          numeric
          value={light}
          onValue={setLight}
        />
        <Button
          minH="48px"
          variant="outline"
          loading={ask.isPending}
          onClick={() => ask.mutate(null)}
        >
          Show what it costs
        </Button>
      </Flex>
      <Box aria-live="polite" mt="2">
        {ask.error && (
          <Text role="alert" color="state.stop">
            {ask.error.message}
          </Text>
        )}
        {found && (
          <>
            <Text fontWeight="semibold">{found.fit.result.verdict.sentence}</Text>
            <Text>{found.fit.result.sentence}</Text>
            {found.fit.result.changes.map((c) => (
              <Text key={c.what} borderTopWidth="1px" py="1">
                {c.aspect}: {c.what}
                {c.kWh > 0 && `, ${figure(c.kWh)} kWh a month`}
                {c.cost_month !== null && `, ${figure(c.cost_month)} a month`}
              </Text>
            ))}
            <Text color="fg.muted">
              {found.place && `${found.place}: ${found.measured_days} days measured. `}A month in
              all{" "}
              <Quantity
                label="A month in all"
                value={found.fit.result.cost_month}
                unit=""
                none="not known"
                working={{ kind: "here", working: found.fit.working }}
              />
              .
            </Text>
          </>
        )}
      </Box>
    </Card>
  )
}
