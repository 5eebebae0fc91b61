import { Text } from "@chakra-ui/react"
import type { Schemas } from "../../../api/client"
import { useSettings } from "../../../api/queries"
import { figure, shown } from "../../../ui/format"

/** One step of the bench in words; the figures are the server's. */
export function BenchLine({ step, large }: { step: Schemas["BenchStep"]; large?: boolean }) {
  const display = useSettings()?.display
  const volume = shown(step.amount, "volume", display)
  const amount =
    step.unit === "L"
      ? `${volume.text} ${volume.unit}`
      : step.unit === "g"
        ? `${shown(step.amount, "mass", display).text} ${shown(step.amount, "mass", display).unit}`
        : `${figure(step.amount)} ${step.unit}`
  const big = (
    <b style={large ? { fontSize: 44, lineHeight: 1.1, display: "block" } : undefined}>{amount}</b>
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
          {Math.round(step.low ?? 0)} to {Math.round(step.high ?? 0)}
        </b>{" "}
        µS/cm.
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
