import { Mind } from "../../ui/Mind"
import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { saltColour } from "../../app/ramp"
import { amount, span, numberIn } from "../../ui/format"
import { Card } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { ChangeForm, LevelForm } from "./LevelForms"
import { changesQuery, reservoirQuery } from "./queries"

/** A tray or reservoir: its level drawn, its salt between two bounds, and when it is changed. */
export function ReservoirCard({
  potId,
  code,
  today,
}: {
  potId: number
  code: string
  today: string
}) {
  const page = useQuery(reservoirQuery(potId)).data
  const changes = useQuery(changesQuery(potId)).data
  const [open, setOpen] = useState<"level" | "change" | null>(null)
  if (!page) return null
  const r = page.now.result
  return (
    <Card title={page.kind === "tray" ? `Tray of ${code}` : `Reservoir of ${code}`}>
      <Grid templateColumns="96px minmax(0,1fr)" gap="4">
        <Vessel page={page} />
        <Box>
          <Text>
            {page.kind === "tray" ? "Read in the tray" : "In it"}:{" "}
            <b>
              <Quantity
                label="Salt below"
                kind="ec"
                value={page.kind === "tray" && !r.measured_on ? null : r.ec_uS_cm}
                low={r.low_uS_cm}
                high={r.high_uS_cm}
                none={page.kind === "tray" ? "not measured" : "not known"}
                working={{ kind: "here", working: page.now.working }}
              />
            </b>
            {r.measured_on
              ? ", measured"
              : page.kind === "reservoir" && r.ec_uS_cm !== null
                ? ", reckoned"
                : ""}
          </Text>
          <Text>{page.tray ? page.tray.result.sentence : r.sentence}</Text>
          {r.medium_uS_cm !== null && (
            <Text color="fg.muted">
              The medium above has about {amount(r.medium_uS_cm, "µS/cm")}
              {r.medium_plateau_uS_cm !== null &&
                `, tending to ${numberIn(r.medium_plateau_uS_cm, "µS/cm")}`}
              .
            </Text>
          )}
          {changes && <Text color="fg.muted">Water is changed: {changes.sentence}</Text>}
        </Box>
      </Grid>
      {open === "level" && <LevelForm potId={potId} today={today} onClose={() => setOpen(null)} />}
      {open === "change" && (
        <ChangeForm potId={potId} today={today} onClose={() => setOpen(null)} />
      )}
      {open === null && (
        <Flex gap="2" mt="3" wrap="wrap">
          <Button minH="44px" variant="outline" onClick={() => setOpen("level")}>
            Add a level
          </Button>
          <Button minH="44px" variant="outline" onClick={() => setOpen("change")}>
            Change the water
          </Button>
        </Flex>
      )}
      <Mind of="pump" />
    </Card>
  )
}

/** The vessel with its level and the line it is kept at. */
function Vessel({ page }: { page: Schemas["ReservoirPage"] }) {
  const r = page.now.result
  const deep = 74
  const full = (litres: number) => 84 - Math.min(1, litres / page.room_L) * deep
  const says = r.level_L === null ? "level not known" : span(r.level_L, page.room_L, "L", "of")
  return (
    <Box asChild color="fg" w="96px">
      <svg viewBox="0 0 96 100" role="img" aria-label={`${page.kind}: ${says}`}>
        {r.level_L !== null && (
          <rect
            x="14"
            width="68"
            y={full(r.level_L)}
            height={84 - full(r.level_L)}
            fill={saltColour(
              (page.kind === "tray" ? page.tray?.result.ec_uS_cm : r.ec_uS_cm) ?? 10,
            )}
          />
        )}
        <path d="M12 8v78h72V8" fill="none" stroke="currentColor" strokeWidth="2" />
        <line
          x1="8"
          x2="88"
          y1={full(r.keep_L)}
          y2={full(r.keep_L)}
          stroke="currentColor"
          strokeDasharray="4 3"
        />
        <text x="48" y="97" textAnchor="middle" style={{ fontSize: 10 }} fill="currentColor">
          {says}
        </text>
      </svg>
    </Box>
  )
}
