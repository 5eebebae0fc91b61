import { span, numberIn, unitName } from "../../../ui/format"
import { Box, Flex, Heading, Text, VisuallyHidden } from "@chakra-ui/react"
import { Link } from "react-router"
import type { Schemas } from "../../../api/client"
import { onSalt, saltColour } from "../../../app/ramp"
import { PotRail } from "../../../ui/PotRail"

type Row = Schemas["PotRow"]
const W = 74
const H = 62
const LEAST = 0.16 // a dry pot still shows the colour of its salt

/** The benches as they stand: each pot filled to the water it has left, at the depth of colour of its salt. */
export function PotShelves({ rows }: { rows: Row[] }) {
  const places = [...new Set(rows.map((r) => r.place))]
  return (
    <Flex direction="column" gap="5">
      {places.map((place) => (
        <Place key={place} place={place} rows={rows.filter((r) => r.place === place)} />
      ))}
      <Text fontSize="sm" color="fg.muted">
        Filled to the water it has left until its next day; the figure is its predicted reading in
        {unitName("µS/cm")}, and the deeper the colour, the saltier. Below it the rail: comfortable
        band, ceiling, prediction, last runoff. Bar at the rim: over its ceiling. Hatched: never
        poured. Broken rim: isolated.
      </Text>
    </Flex>
  )
}

function Place({ place, rows }: { place: string; rows: Row[] }) {
  const spots = [...new Set(rows.map((r) => r.spot))]
  return (
    <Box>
      <Heading as="h2" fontSize="md" fontWeight="semibold" mb="2">
        {place}
      </Heading>
      <Flex wrap="wrap" columnGap="6" rowGap="4" align="flex-end">
        {spots.map((spot) => (
          <Box as="section" key={spot} aria-label={spot ? `${place}, ${spot}` : place} maxW="100%">
            <Flex
              as="ul"
              listStyleType="none"
              wrap="wrap"
              gap="1"
              borderBottomWidth="5px"
              borderColor="border.strong"
              px="2"
              alignItems="flex-end"
            >
              {rows
                .filter((r) => r.spot === spot)
                .map((r) => (
                  <Pot key={r.id} row={r} />
                ))}
            </Flex>
            <Text fontSize="sm" color="fg.muted" px="2" pt="0.5">
              {spot || place}
            </Text>
          </Box>
        ))}
      </Flex>
    </Box>
  )
}

const says = (r: Row) =>
  [
    `${r.code} ${r.name}`,
    r.left_share === null
      ? "never poured"
      : `${Math.round(r.left_share * 100)} % of its water left`,
    r.reading_uS_cm === null
      ? "reading not known"
      : `reading ${span(r.reading_uS_cm, r.ceiling_uS_cm, "µS/cm", "of at most")}`,
    r.isolated && "isolated",
  ]
    .filter(Boolean)
    .join(", ")

function Pot({ row }: { row: Row }) {
  const size = Math.min(1.25, Math.max(0.72, 0.72 + Math.cbrt(row.volume_L) * 0.45)) // pours grow with the pot
  const top = 10 + (1 - Math.max(row.left_share ?? 0, LEAST)) * 46
  const inset = ((top - 8) / 50) * 10
  const ec = row.reading_uS_cm
  const high = (row.left_share ?? 0) > 0.45 // room for the figure inside the water
  const over = row.over_ceiling
  return (
    <Box as="li" w={`${W + 18}px`} textAlign="center">
      <Link to={`/pots/${row.id}`} style={{ display: "block" }}>
        <VisuallyHidden>{says(row)}</VisuallyHidden>
        <Box aria-hidden>
          <Box asChild color="fg" display="block" mx="auto">
            <svg width={W * size} height={H * size} viewBox={`0 0 ${W} ${H}`} aria-hidden>
              {row.left_share === null ? (
                [18, 30, 42, 54].map((x) => (
                  <line
                    key={x}
                    x1={x}
                    y1="56"
                    x2={x + 8}
                    y2="12"
                    stroke="currentColor"
                    strokeWidth="1"
                    opacity="0.5"
                  />
                ))
              ) : (
                <path
                  d={`M${7 + inset} ${top} H${W - 7 - inset} L${W - 18} 58 H18 Z`}
                  fill={ec === null ? "var(--chakra-colors-bg-subtle)" : saltColour(ec)}
                />
              )}
              <path
                d={`M7 8 H${W - 7} L${W - 17} 59 H17 Z`}
                fill="none"
                stroke="currentColor"
                strokeWidth="2"
                strokeDasharray={row.isolated ? "5 4" : undefined}
                strokeLinejoin="round"
              />
              {over && (
                <rect x="4" y="2" width={W - 8} height="5" fill="var(--chakra-colors-state-stop)" />
              )}
              {ec !== null && (
                <text
                  style={{ fontSize: 14, fontWeight: 700 }}
                  x={W / 2}
                  y={high ? 49 : top - 6}
                  textAnchor="middle"
                  fill={high ? onSalt(ec) : "currentColor"}
                >
                  {numberIn(ec, "µS/cm")}
                </text>
              )}
            </svg>
          </Box>
          <PotRail row={row} width={86} />
          <Text fontSize="sm" fontWeight="semibold" truncate>
            {row.code}
          </Text>
          <Text fontSize="xs" color="fg.muted" truncate>
            {row.name}
          </Text>
        </Box>
      </Link>
    </Box>
  )
}
