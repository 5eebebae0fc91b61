/** A leaf standing on the line: outlined when formed before the change, half when begun before it, whole when after. */
export function LeafShape({
  x,
  base,
  tall,
  formed,
  dashed = false,
}: {
  x: number
  base: number
  tall: number
  formed: "formed before" | "begun before" | "formed after" | null
  dashed?: boolean
}) {
  const half = Math.max(2.5, Math.min(5.5, tall / 4))
  const stem = Math.min(4, tall / 4)
  const foot = base - stem
  const top = base - tall
  const right = `M${x} ${foot} q${half * 2} ${-(foot - top) * 0.55} 0 ${top - foot}`
  const blade = `${right} q${-half * 2} ${(foot - top) * 0.45} 0 ${foot - top} Z`
  const whole = formed === null || formed === "formed after"
  return (
    <g
      stroke="var(--chakra-colors-leaf-edge)"
      strokeDasharray={dashed ? "2 2" : undefined}
      opacity={dashed ? 0.6 : 1}
    >
      <path d={`M${x} ${base}V${foot}`} />
      <path
        d={blade}
        fill={whole && !dashed ? "var(--chakra-colors-leaf)" : "var(--chakra-colors-bg-panel)"}
      />
      {formed === "begun before" && <path d={`${right} Z`} fill="var(--chakra-colors-leaf)" />}
    </g>
  )
}
