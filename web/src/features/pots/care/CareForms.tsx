import { Box } from "@chakra-ui/react"
import { type Schemas } from "../../../api/client"
import { RuleForm } from "../../../ui/RuleForm"
import { CareForm } from "./CareForm"
import { ChangeHere } from "./ChangeHere"
import { ClimateForm } from "./ClimateForm"
import { FeltForm } from "./FeltForm"
import { HandlingForm } from "./HandlingForm"
import { PlaceForm } from "./PlaceForm"
import { RampForm } from "./RampForm"
import { ReadyForm } from "./ReadyForm"
import { TreatedForm } from "./TreatedForm"
import { WeightForm } from "./WeightForm"

export type Open =
  | "care"
  | "place"
  | "weight"
  | "climate"
  | "ready"
  | "felt"
  | "changed"
  | "rule"
  | "treated"
  | "handling"
  | "ramp"

/** The form that is open. */
export function CareForms({
  open,
  page,
  care,
  close,
}: {
  open: Open | null
  page: Schemas["PotPage"]
  care: Schemas["CarePage"]
  close: () => void
}) {
  return (
    <Box mt="3">
      {open === "care" && <CareForm potId={page.row.id} care={care} onClose={close} />}
      {open === "weight" && <WeightForm potId={page.row.id} today={page.today} onClose={close} />}
      {open === "climate" && (
        <ClimateForm
          placeId={care.place_id}
          place={page.row.place}
          today={page.today}
          onClose={close}
        />
      )}
      {open === "handling" && <HandlingForm page={page} onClose={close} />}
      {open === "ramp" && <RampForm potId={page.row.id} today={page.today} onClose={close} />}
      {open === "ready" && <ReadyForm potId={page.row.id} care={care} onClose={close} />}
      {open === "treated" && <TreatedForm potId={page.row.id} today={page.today} onClose={close} />}
      {open === "felt" && (
        <FeltForm potId={page.row.id} care={care} today={page.today} onClose={close} />
      )}
      {open === "changed" && (
        <ChangeHere
          placeId={care.place_id}
          place={page.row.place}
          today={page.today}
          onClose={close}
        />
      )}
      {open === "rule" && (
        <RuleForm
          scope="place"
          ruleKey={String(care.place_id)}
          of={page.row.place}
          onClose={close}
        />
      )}
      {open === "place" && <PlaceForm placeId={care.place_id} onClose={close} />}
    </Box>
  )
}
