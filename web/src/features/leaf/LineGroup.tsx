import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import type { ScaleTime } from "d3-scale"
import { Grass } from "./Grass"
import { COLUMNS, PlantRow } from "./PlantRow"
import type { PlantLine } from "./queries"

/** Plants of one group under its heading; folded it is one strip of grass. */
export function LineGroup({
  title,
  plants,
  open,
  onFold,
  onLeaf,
  onLook,
  ...drawn
}: {
  title: string
  plants: PlantLine[]
  open: boolean
  today: string
  x: ScaleTime<number, number>
  width: number
  onFold: () => void
  onLeaf: (plant: PlantLine, index: number | null) => void
  onLook: (plant: PlantLine) => void
}) {
  const name = title[0]?.toUpperCase() + title.slice(1)
  return (
    <Box as="section" aria-label={name} borderTopWidth="1px">
      <Flex bg="bg.subtle" px="2" align="center">
        <Button size="sm" minH="44px" variant="ghost" aria-expanded={open} onClick={onFold}>
          <span aria-hidden="true">{open ? "▾" : "▸"}</span> {name}
        </Button>
        <Text fontSize="sm" color="fg.muted">
          {plants.length} {plants.length === 1 ? "plant" : "plants"}
        </Text>
      </Flex>
      {open ? (
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
      ) : (
        <Grid templateColumns={COLUMNS} columnGap="3" px="3" alignItems="center">
          <Text fontSize="xs" color="fg.muted" display={{ base: "none", lg: "block" }} truncate>
            {plants.map((p) => p.code).join(", ")}
          </Text>
          <Box gridColumn={{ base: "1 / -1", lg: "auto" }}>
            <Grass plants={plants} label={`${name}: ${plants.length} plants folded`} {...drawn} />
          </Box>
        </Grid>
      )}
    </Box>
  )
}
