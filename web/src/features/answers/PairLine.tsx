import { Text } from "@chakra-ui/react"
import { useWidth } from "../../ui/useWidth"
import type { TrialPage } from "./queries"
import { spokenPair } from "./spoken"
import { change, range } from "./words"

/** A pair's difference on the axis of all pairs. */
export function PairLine({
  told,
  unit,
  most,
}: {
  told: TrialPage["answer"]["pairs"][number]
  unit: string
  most: number
}) {
  const [ref, wide] = useWidth<HTMLDivElement>(480)
  const a = told.answer
  if (told.left_out) return <Text color="state.caution">Left out: {told.left_out}</Text>
  if (a.measured_shown === null || a.low_shown === null || a.high_shown === null)
    return (
      <Text fontSize="sm" color="fg.muted">
        {a.sentence}
      </Text>
    )
  const x = (v: number) => wide / 2 + (Math.max(-most, Math.min(most, v)) / most) * (wide / 2 - 12)
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${wide} 22`}
        width="100%"
        role="img"
        fill="none"
        aria-label={spokenPair(told, unit)}
      >
        <line x1={wide / 2} x2={wide / 2} y1="1" y2="21" stroke="currentColor" opacity="0.5" />
        <line x1="6" x2={wide - 6} y1="11" y2="11" stroke="currentColor" opacity="0.2" />
        <line
          x1={x(a.low_shown)}
          x2={x(a.high_shown)}
          y1="11"
          y2="11"
          stroke="var(--chakra-colors-leaf-edge)"
          strokeWidth="6"
          opacity="0.5"
        />
        <circle
          cx={x(a.measured_shown)}
          cy="11"
          r="5"
          stroke="var(--chakra-colors-leaf-edge)"
          strokeWidth="1.6"
          fill={told.counts ? "var(--chakra-colors-leaf)" : "var(--chakra-colors-bg-panel)"}
        />
      </svg>
      <Text fontSize="sm" color="fg.muted">
        {change(a.measured_shown, unit)}; {range(a.low_shown, a.high_shown, unit)}.{" "}
        {told.counts ? "Counts." : "Does not count yet."}
      </Text>
    </div>
  )
}
