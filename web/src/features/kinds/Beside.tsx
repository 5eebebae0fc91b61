import { amount, spanOf } from "../../ui/format"
import { Flex, Text } from "@chakra-ui/react"
import { Link } from "react-router"
import { Facts } from "../../ui/Facts"
import { Card } from "../../ui/Page"
import { type KindData } from "./loadKind"

const LEVELS = ["none known", "low", "moderate", "high"]

const ABOVE: Record<string, string> = {
  none_known: "none known, which is no promise",
  unknown: "unknown, which never means safe",
}

/** What beside salt a kind asks, how it answers, and its hazard. */
export function Beside({ page }: { page: KindData }) {
  const p = page.profile
  return (
    <>
      <Card title="Limits beside salt">
        <Facts
          rows={[
            ["Alkalinity, at most", `${p.source_water.alkalinity_ceiling_mg_L} mg/L as CaCO3`],
            ["pH of the root zone", p.root_zone.pH.join(" to ")],
            ...(["fluoride", "chlorine", "sodium", "boron"] as const).map(
              (k) => [`Sensitive to ${k}`, LEVELS[p.sensitivity[k]]] as const,
            ),
            ["Day", spanOf(p.climate.day_C, "°C")],
            ["Night", spanOf(p.climate.night_C, "°C")],
            ["Never below", `${amount(p.climate.minimum_C, "°C")}`],
            p.climate.humidity_pct
              ? ["Humidity", `${p.climate.humidity_pct.join(" to ")} %`]
              : null,
          ]}
        />
      </Card>
      <Card title="Flush and answer">
        <Text>{p.flush.how}</Text>
        <Facts
          rows={[
            p.flush.cadence_days
              ? ["By habit each", `${p.flush.cadence_days.join(" to ")} days`]
              : null,
            ["Answers to hunger in", `${p.lag_days.underfeeding.join(" to ")} days`],
            ["Answers to salt in", `${p.lag_days.overfeeding.join(" to ")} days`],
          ]}
        />
        <Text mt="2" fontSize="sm">
          {p.lag_days.first_sign}
        </Text>
      </Card>
      <Card title="Hazard">
        <Text>
          Pets: {ABOVE[p.hazard.pets] ?? p.hazard.pets}. People:{" "}
          {ABOVE[p.hazard.people] ?? p.hazard.people}.
          {p.hazard.agent && ` Because of ${p.hazard.agent}.`}
        </Text>
        <Text fontSize="sm" color="fg.muted">
          Confidence {p.hazard.confidence}. A doctor, a vet or a poison service outranks this page.
        </Text>
      </Card>
      {page.pots.length > 0 && (
        <Card title="Here">
          <Flex gap="3" wrap="wrap">
            {page.pots.map((pot, i) => (
              <Link key={pot.id} to={`/pots/${pot.id}`}>
                {page.codes[i]}
              </Link>
            ))}
          </Flex>
        </Card>
      )}
    </>
  )
}
