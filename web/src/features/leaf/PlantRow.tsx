import { Box, Button, Grid, Text } from "@chakra-ui/react"
import type { ScaleTime } from "d3-scale"
import { Link } from "react-router"
import { capital, day, figure } from "../../ui/format"
import { Quantity } from "../../ui/Quantity"
import { LineDrawing } from "./LineDrawing"
import { lineWorking, type PlantLine } from "./queries"

export const COLUMNS = {
  base: "minmax(0,1fr) auto",
  lg: "150px minmax(0,1fr) 230px 76px",
}

const nextLeaf = ({ line: { next_leaf: n } }: PlantLine, today: string) =>
  n.next_on === null || n.latest_on === null
    ? ""
    : n.next_on > today
      ? `Next leaf about ${day(n.next_on, today)}. `
      : `Next leaf due by ${day(n.latest_on, today)}. `

/** A plant: its name, its line, the word that says what the line means, and a look. */
export function PlantRow({
  plant,
  today,
  x,
  width,
  onLeaf,
  onLook,
}: {
  plant: PlantLine
  today: string
  x: ScaleTime<number, number>
  width: number
  onLeaf: (index: number | null) => void
  onLook: () => void
}) {
  const { line } = plant
  return (
    <Grid
      as="li"
      templateColumns={COLUMNS}
      columnGap="3"
      alignItems="center"
      px="3"
      py="1"
      borderTopWidth="1px"
      css={{ contain: "content" }}
    >
      <Box minW="0">
        <Link to={`/pots/${plant.pot_id}`}>
          <Text
            as="span"
            fontWeight="semibold"
            textDecoration="underline"
            textUnderlineOffset="0.2em"
          >
            {plant.code}
          </Text>{" "}
          {plant.name}
        </Link>
        <Text fontSize="xs" color="fg.muted" truncate>
          {plant.place}
        </Text>
      </Box>
      <Box gridColumn={{ base: "1 / -1", lg: "auto" }} gridRow={{ base: 2, lg: "auto" }} minW="0">
        <LineDrawing plant={plant} today={today} x={x} width={width} onLeaf={onLeaf} />
      </Box>
      <Box gridColumn={{ base: "1 / -1", lg: "auto" }} gridRow={{ base: 3, lg: "auto" }}>
        <Text fontSize="sm" fontWeight="semibold">
          {capital(line.word)}.
        </Text>
        <Text fontSize="xs" color="fg.muted">
          {line.usual_mm !== null && (
            <>
              Usually{" "}
              <Quantity
                label={`Usual leaf of ${plant.code}`}
                value={Math.round(line.usual_mm)}
                unit="mm"
                working={lineWorking(plant.pot_id)}
              />
              .{" "}
            </>
          )}
          {nextLeaf(plant, today)}
          {plant.marks.length > 0 && `Marks: ${plant.marks.join(", ")}. `}
          {plant.leaves_count !== null && `${figure(plant.leaves_count)} leaves.`}
        </Text>
      </Box>
      <Button
        size="sm"
        minH="44px"
        variant={line.group === "look today" ? "solid" : "outline"}
        gridRow={{ base: 1, lg: "auto" }}
        gridColumn={{ base: 2, lg: "auto" }}
        aria-label={`Log a look at ${plant.code}`}
        onClick={onLook}
      >
        Look
      </Button>
    </Grid>
  )
}
