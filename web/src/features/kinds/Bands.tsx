import { amount, spanOf, ecScale } from "../../ui/format"
import { Box, Grid, Text } from "@chakra-ui/react"
import { Card } from "../../ui/Page"
import { Rail } from "../../ui/Rail"
import { type KindData } from "./loadKind"
import { pair } from "./words"

export function Bands({ page }: { page: KindData }) {
  const { source_water: w, root_zone: z, phases, feeding } = page.profile
  const fed = Object.entries(phases).filter(([, f]) => f.feed)
  const unfed = Object.entries(phases)
    .filter(([, f]) => !f.feed)
    .map(([name]) => name)
  return (
    <Card title={`On the rail, ${ecScale()}`}>
      <Band
        name="Water it may drink"
        says={[
          `Comfortable up to ${w.ec_ideal_max_uS_cm}, at most ${w.ec_max_uS_cm};`,
          `${w.ec_short_term_max_uS_cm} for a few weeks. Confidence ${w.confidence}.`,
        ].join(" ")}
        band={[10, w.ec_ideal_max_uS_cm]}
        ceiling={w.ec_max_uS_cm}
      />
      {fed.map(([name, f]) => (
        <Band
          key={name}
          name={`Feed, ${name}`}
          says={`${[
            `${f.n_ideal_mg_L.join(" to ")} mg/L N`,
            f.ec_ideal_uS_cm && spanOf(f.ec_ideal_uS_cm, "µS/cm"),
            f.ec_ceiling_uS_cm && `at most ${f.ec_ceiling_uS_cm}`,
            f.interval_days && `each ${f.interval_days.join(" to ")} days`,
          ]
            .filter(Boolean)
            .join(", ")}.`}
          band={pair(f.ec_ideal_uS_cm)}
          ceiling={f.ec_ceiling_uS_cm}
        />
      ))}
      {unfed.length > 0 && (
        <Band
          name="No feed"
          says={fed.length === 0 ? "In no phase by default." : `While ${unfed.join(" or ")}.`}
        />
      )}
      <Band
        name={page.profile.method === "soak" ? "Water it is soaked in" : "Reading of the root zone"}
        says={[
          `Comfortable ${z.ec_ideal_uS_cm.join(" to ")}, ceiling ${z.ec_ceiling_uS_cm}.`,
          `Confidence ${z.confidence}.`,
        ].join(" ")}
        band={pair(z.ec_ideal_uS_cm)}
        ceiling={z.ec_ceiling_uS_cm}
      />
      <Text fontSize="sm" color="fg.muted">
        Fed by {feeding.routes.map((r) => (r === "none" ? "nothing at all" : r)).join(", or ")}. EC
        of feeds is told for a water of {amount(feeding.reference_source_uS_cm, "µS/cm")};
        confidence {feeding.confidence}.
      </Text>
    </Card>
  )
}

function Band({
  name,
  says,
  band,
  ceiling,
}: {
  name: string
  says: string
  band?: [number, number] | null
  ceiling?: number | null
}) {
  return (
    <Grid
      templateColumns={{ base: "minmax(0,1fr)", sm: "minmax(0,1fr) minmax(0,1.1fr)" }}
      gap="3"
      alignItems="center"
      py="1.5"
      borderTopWidth="1px"
      _first={{ borderTopWidth: 0 }}
    >
      <Box>
        <Text fontWeight="medium">{name}</Text>
        <Text fontSize="sm" color="fg.muted">
          {says}
        </Text>
      </Box>
      {band && <Rail label={`${name}: ${says}`} band={band} ceiling={ceiling} />}
    </Grid>
  )
}
