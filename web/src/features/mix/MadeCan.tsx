import { Button, Grid, Text } from "@chakra-ui/react"
import { useState } from "react"
import type { Schemas } from "../../api/client"
import { PourPanel } from "../pots/PourPanel"
import { Rescue } from "./Rescue"
import { amount, expected, wholeDay } from "../../ui/format"
import { Card, PageHead } from "../../ui/Page"
import { Quantity } from "../../ui/Quantity"
import { PenForm } from "./PenForm"

type Props = {
  made: Schemas["BatchOut"]
  potIds: number[]
  page: Schemas["MixPage"]
  onBack: () => void
}

/** The can is made: read the pen, be told, pour. */
export function MadeCan({ made, potIds, page, onBack }: Props) {
  const [judged, setJudged] = useState<Schemas["Judged"] | null>(null)
  const batch = judged?.batch ?? made
  const sentence = judged?.check.sentence ?? made.verdict_sentence
  const recipe =
    batch.recipe_version === null ? "" : `, ${batch.recipe}, version ${batch.recipe_version}`
  return (
    <>
      <PageHead
        title={`Can: ${batch.name}`}
        line={[
          `${amount(batch.volume_L, "L")}, made ${wholeDay(batch.made_on)}${recipe}.`,
          `Expect ${expected(batch.predicted_low_uS_cm, batch.predicted_high_uS_cm)}.`,
        ].join(" ")}
      >
        <Button variant="outline" minH="44px" data-back onClick={onBack}>
          Another can
        </Button>
      </PageHead>
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) minmax(0,1.4fr)" }}
        gap="4"
        alignItems="start"
      >
        <Card title="Read the pen">
          <Text mb="2">
            Predicted <Quantity label="Predicted EC" kind="ec" value={batch.predicted_uS_cm} />
            {batch.measured_uS_cm !== null && (
              <>
                , measured{" "}
                <b>
                  <Quantity
                    label="Measured EC"
                    kind="ec"
                    value={batch.measured_uS_cm}
                    working={judged ? { kind: "here", working: judged.working } : undefined}
                  />
                </b>
              </>
            )}
            .
          </Text>
          {sentence ? (
            <Text
              role="status"
              fontSize="lg"
              fontWeight="semibold"
              color={batch.verdict === "fine" ? "state.good" : "state.stop"}
              mb="3"
            >
              {sentence}
            </Text>
          ) : null}
          <PenForm
            key={judged ? "again" : "first"}
            batchId={batch.id}
            today={page.today}
            onJudged={setJudged}
            again={batch.measured_uS_cm !== null}
          />
          {batch.dose_g_L > 0 &&
            batch.verdict !== "" &&
            (batch.verdict !== "fine" || batch.age_days > 0) && (
              <Rescue
                key={batch.measured_uS_cm}
                batch={batch}
                reading={batch.age_days > 0 && !judged ? null : batch.measured_uS_cm}
              />
            )}
        </Card>
        <PourPanel
          pots={page.pots}
          chosen={potIds}
          today={page.today}
          source={{ kind: "batch", id: batch.id, name: batch.name }}
        />
      </Grid>
    </>
  )
}
