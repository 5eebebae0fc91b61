const muted = { style: { fontSize: 12 }, fill: "var(--chakra-colors-fg-muted)" }
const strong = { style: { fontSize: 13, fontWeight: 600 }, fill: "currentColor" }

/** Who grows up from the line, and who hangs from it. */
export function TwinNames({
  line,
  name,
  beside,
  held,
}: {
  line: number
  name: string
  beside: string
  held: string
}) {
  return (
    <>
      <text x="0" y={line - 34} {...strong}>
        {name.slice(0, 12)}
      </text>
      <text x="0" y={line - 18} {...muted}>
        changed
      </text>
      <text x="0" y={line + 34} {...strong}>
        {beside.slice(0, 5).trim() || "Beside it"}
      </text>
      <text x="0" y={line + 50} {...muted}>
        {held}
      </text>
    </>
  )
}
