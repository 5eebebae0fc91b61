import { Button, Flex, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { answer, client, type Schemas } from "../../../api/client"
import { Card } from "../../../ui/Page"
import { CareWords } from "./CareWords"
import { HosedButton } from "./HosedButton"
import { type Open, CareForms } from "./CareForms"

const careQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "one", id, "care"],
    queryFn: () =>
      answer(client.GET("/api/pots/{pot_id}/care", { params: { path: { pot_id: id } } })),
  })

/** What rules the pot: phase, rhythm, days to the next look, water by weight. */
export function CareCard({ page }: { page: Schemas["PotPage"] }) {
  const care = useQuery(careQuery(page.row.id)).data
  const [open, setOpen] = useState<Open | null>(null)
  if (!care)
    return (
      <Card title="Care">
        <Text role="status">One moment.</Text>
      </Card>
    )
  // a form that was slow to save closes itself, not the one opened since
  const close = () => setOpen((now) => (now === open ? null : now))
  return (
    <Card title="Care">
      <CareWords page={page} care={care} />
      <Flex gap="2" mt="3" wrap="wrap">
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("care")}>
          School and phase
        </Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("felt")}>
          How dry is it?
        </Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("weight")}>
          Weigh it
        </Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("ready")}>
          When it wants water
        </Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("handling")}>
          How it is watered
        </Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("ramp")}>
          Settle in by steps
        </Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("treated")}>
          Leaves treated
        </Button>
      </Flex>
      <Flex gap="2" mt="2" wrap="wrap" align="center">
        <Text fontSize="sm" color="fg.muted">
          {page.row.place}:
        </Text>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("place")}>
          Seasons
        </Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("climate")}>
          Warmth
        </Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("changed")}>
          What changed
        </Button>
        <Button size="sm" variant="outline" minH="44px" onClick={() => setOpen("rule")}>
          Rule of the place
        </Button>
        <HosedButton placeId={care.place_id} place={page.row.place} today={page.today} />
      </Flex>
      <CareForms open={open} page={page} care={care} close={close} />
    </Card>
  )
}
