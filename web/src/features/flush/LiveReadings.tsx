type Read = { id: number; x: number; y: number; said: string }

/** What was read of each pass: a diamond, and its figure in turn above and below, but not on the line of the stop. */
export function LiveReadings({ read, stop }: { read: Read[]; stop: number }) {
  const beside = (p: Read, i: number) => {
    const sides = i % 2 ? [16, -6] : [-6, 16]
    return sides.find((side) => Math.abs(p.y + side - 4 - stop) > 9) ?? sides[0]
  }
  return read.map((p, i) => (
    <g key={p.id} transform={`translate(${p.x} ${p.y})`}>
      <path
        d="M0-7L7 0L0 7L-7 0Z"
        fill="var(--chakra-colors-bg-panel)"
        stroke="currentColor"
        strokeWidth="1.8"
      />
      <text x="9" y={beside(p, i)} style={{ fontSize: 12, fontWeight: 600 }} fill="currentColor">
        {p.said}
      </text>
    </g>
  ))
}
