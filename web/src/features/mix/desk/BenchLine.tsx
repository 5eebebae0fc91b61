import { Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { amountOf, spanIn, unitName } from "../../../ui/format"

/** One step of the bench in words; the figures are the server's. */
export function BenchLine({ step, large }: { step: Schemas["BenchStep"]; large?: boolean }) {
  const big = (
    <b style={large ? { fontSize: 44, lineHeight: 1.1, display: "block" } : undefined}>
      {amountOf(step.amount, step.unit)}
    </b>
  )
  const words = {
    "half fill": (
      <>
        Pour in about {big} {step.what}.
      </>
    ),
    weigh: (
      <>
        Weigh {big} {step.what}, dissolve it.
      </>
    ),
    measure: (
      <>
        Measure {big} {step.what}.
      </>
    ),
    thin: (
      <>
        Draw {big} {step.what}.
      </>
    ),
    draw: (
      <>
        Draw {big} {step.what}.
      </>
    ),
    fill: <>Fill to the {big} line.</>,
    read: (
      <>
        Read: expect{" "}
        <b style={large ? { fontSize: 44, lineHeight: 1.1, display: "block" } : undefined}>
          {spanIn(step.low ?? 0, step.high ?? 0, "µS/cm")}
        </b>{" "}
        {unitName("µS/cm")}.
      </>
    ),
  }[step.act]
  return (
    <>
      {words}{" "}
      {step.caution && (
        <Text as="span" color={large ? undefined : "fg.muted"} fontSize="sm">
          {step.caution}
        </Text>
      )}
    </>
  )
}
