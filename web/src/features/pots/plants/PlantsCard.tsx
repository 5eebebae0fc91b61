import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import { answer, client, keyed, type Schemas } from "../../../api/client"
import { day } from "../../../ui/format"
import { Card } from "../../../ui/Page"
import { usePress } from "../../../ui/usePress"
import { OwnLimits } from "./OwnLimits"
import { AnotherGrowth, AnotherPlant } from "./PlantForms"

type Plant = Schemas["PlantOut"]
const plantsQuery = (id: number) =>
  queryOptions({
    queryKey: ["pots", "one", id, "plants"],
    queryFn: () =>
      answer(client.GET("/api/pots/{pot_id}/plants", { params: { path: { pot_id: id } } })),
  })

/** Who lives in the pot, where each came from, and which growth leads. */
export function PlantsCard({ page }: { page: Schemas["PotPage"] }) {
  const plants = useQuery(plantsQuery(page.row.id)).data ?? []
  const [adding, setAdding] = useState(false)
  return (
    <Card title={plants.length > 1 ? `${plants.length} plants` : "The plant"}>
      {plants.length > 1 && (
        <Text color="fg.muted" mb="1">
          The strictest of them rules water and feed.
        </Text>
      )}
      {page.bought_on && <Text mb="1">{page.bought_on}</Text>}
      {plants.map((p) => (
        <One key={p.id} plant={p} today={page.today} />
      ))}
      {adding ? (
        <AnotherPlant potId={page.row.id} onClose={() => setAdding(false)} />
      ) : (
        <Button size="sm" variant="outline" minH="44px" mt="2" onClick={() => setAdding(true)}>
          Another plant in this pot
        </Button>
      )}
    </Card>
  )
}

const To = ({ kin }: { kin: Schemas["Kin"] }) =>
  kin.archived ? (
    <>{kin.code}, archived</>
  ) : (
    <Link to={`/pots/${kin.pot_id}`}>
      <Text as="span" textDecoration="underline">
        {kin.code}
      </Text>
    </Link>
  )

function One({ plant, today }: { plant: Plant; today: string }) {
  const [open, setOpen] = useState<"growth" | "own" | null>(null)
  const close = () => setOpen(null)
  return (
    <Box borderTopWidth="1px" py="2">
      <Text fontWeight="semibold">
        {plant.label || plant.kind}
        {plant.count > 1 ? ` × ${plant.count}` : ""}
      </Text>
      <Text color="fg.muted">
        {[
          plant.label && plant.kind,
          plant.arrived_on && `since ${day(plant.arrived_on, today)}`,
          plant.source,
        ]
          .filter(Boolean)
          .join(" · ")}
      </Text>
      {plant.parent && (
        <Text>
          A {plant.parent.relation} of <To kin={plant.parent} />
        </Text>
      )}
      {plant.children.length > 0 && (
        <Text>
          Gave{" "}
          {plant.children.map((c, i) => (
            <Text as="span" key={c.pot_id}>
              {i > 0 && ", "}
              <To kin={c} />
            </Text>
          ))}
        </Text>
      )}
      {plant.growths.length > 1 && plant.growths.map((g) => <Growth key={g.id} growth={g} />)}
      {open === "growth" && <AnotherGrowth plantId={plant.id} onClose={close} />}
      {open === "own" && <OwnLimits plant={plant} onClose={close} />}
      {open === null && (
        <Flex gap="2" mt="1" wrap="wrap">
          <Button size="sm" variant="ghost" minH="44px" onClick={() => setOpen("growth")}>
            Another growth
          </Button>
          <Button size="sm" variant="ghost" minH="44px" onClick={() => setOpen("own")}>
            Its own limits
          </Button>
        </Flex>
      )}
    </Box>
  )
}

function Growth({ growth }: { growth: Schemas["GrowthOut"] }) {
  const lead = usePress((_: null, key) =>
    answer(
      client.POST("/api/growths/{growth_id}/lead", {
        params: { ...keyed(key), path: { growth_id: growth.id } },
      }),
    ),
  )
  const name = growth.name || "first growth"
  return (
    <Flex justify="space-between" align="center" gap="2">
      <Text>
        {name}: {growth.phase ?? "not noted"}
        {growth.leads ? ", leads" : ""}
      </Text>
      {!growth.leads && (
        <Button
          size="sm"
          variant="outline"
          minH="40px"
          aria-label={`Let ${name} lead`}
          loading={lead.isPending}
          onClick={() => lead.mutate(null)}
        >
          Let it lead
        </Button>
      )}
    </Flex>
  )
}
