import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useInfiniteQuery } from "@tanstack/react-query"
import type { ScaleTime } from "d3-scale"
import { useState } from "react"
import { MoreRows } from "../../ui/MoreRows"
import { Fold } from "../../ui/Signs"
import { Grass } from "./Grass"
import { COLUMNS, PlantRow } from "./PlantRow"
import { type Asked, type LeafGroup as Group, moreOfGroup, type PlantLine } from "./queries"
import { capital } from "../../ui/format"

/** Plants of one group under its heading; folded it is one strip of grass. */
export function LineGroup({
  group,
  asked,
  open,
  onFold,
  onLeaf,
  onLook,
  ...drawn
}: {
  group: Group
  asked: Asked
  open: boolean
  today: string
  x: ScaleTime<number, number>
  width: number
  onFold: () => void
  onLeaf: (plant: PlantLine, index: number | null) => void
  onLook: (plant: PlantLine) => void
}) {
  const [pressed, setPressed] = useState(false)
  const sent = group.plants
  const more = useInfiniteQuery({
    ...moreOfGroup(asked, group.key, sent.length),
    enabled: pressed,
  })
  const rest = more.data?.pages.flatMap((p) => p.plants) ?? []
  const plants = [...new Map([...sent, ...rest].map((p) => [p.pot_id, p])).values()] // a look moves a plant
  const left = group.total - plants.length
  const name = capital(group.key)
  return (
    <Box as="section" aria-label={name} borderTopWidth="1px">
      <Flex bg="bg.subtle" px="2" align="center">
        <Button size="sm" minH="44px" variant="ghost" aria-expanded={open} onClick={onFold}>
          <Fold open={open} /> {name}
        </Button>
        <Text fontSize="sm" color="fg.muted">
          {group.total} {group.total === 1 ? "plant" : "plants"}
        </Text>
      </Flex>
      {open ? (
        <>
          <Box as="ul" listStyleType="none">
            {plants.map((p) => (
              <PlantRow
                key={p.pot_id}
                plant={p}
                onLeaf={(i) => onLeaf(p, i)}
                onLook={() => onLook(p)}
                {...drawn}
              />
            ))}
          </Box>
          <Box px="3">
            <MoreRows
              left={left}
              query={{
                hasNextPage: left > 0,
                isFetchingNextPage: more.isFetching,
                fetchNextPage: () => (pressed ? void more.fetchNextPage() : setPressed(true)),
              }}
            />
          </Box>
        </>
      ) : (
        <Grid templateColumns={COLUMNS} columnGap="3" px="3" alignItems="center">
          <Text fontSize="xs" color="fg.muted" display={{ base: "none", lg: "block" }} truncate>
            {plants.map((p) => p.code).join(", ")}
            {left > 0 && ` and ${left} more`}
          </Text>
          <Box gridColumn={{ base: "1 / -1", lg: "auto" }}>
            <Grass plants={plants} label={`${name}: ${group.total} plants folded`} {...drawn} />
          </Box>
        </Grid>
      )}
    </Box>
  )
}
