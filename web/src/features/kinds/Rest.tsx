import { amount } from "../../ui/format"
import { Text } from "@chakra-ui/react"
import { Card } from "../../ui/Page"
import { type KindData } from "./loadKind"
import { ago } from "./words"

const RESTS: Record<string, string> = {
  none: "No rest",
  plain: "Rests with plain water",
  dry: "Rests dry",
  summer: "Rests dry in summer",
}

export function Rest({ rest }: { rest: KindData["profile"]["rest"] }) {
  return (
    <Card title={`${RESTS[rest.kind] ?? rest.kind}${rest.optional ? ", if you wish" : ""}`}>
      <Text>{rest.enter}</Text>
      {rest.kind !== "none" && (
        <Text mt="1">
          <b>Ends with:</b> {rest.restart}.
          {rest.root_gate_cm ? ` Roots of ${amount(rest.root_gate_cm, "cm")} first.` : ""}
        </Text>
      )}
      {rest.window_days && (
        <Text fontSize="sm" color="fg.muted" mt="1">
          By the calendar from {ago(rest.window_days[0])} to {ago(rest.window_days[1])} the shortest
          day, on either hemisphere.{rest.needs_cold ? " Lamps cannot replace its cold." : ""}
        </Text>
      )}
    </Card>
  )
}
