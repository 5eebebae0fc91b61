import type { Schemas } from "../../api/client"

/** What happened between the photos, standing on the line at its day. */
export function RingEvents({
  happened,
  x,
  foot,
}: {
  happened: Schemas["Happened"][]
  x: (iso: string) => number
  foot: number
}) {
  return (
    <>
      {happened.map((h, i) => (
        <g key={i}>
          <line
            x1={x(h.on)}
            x2={x(h.on)}
            y1={14}
            y2={foot}
            stroke="currentColor"
            strokeDasharray="2 2"
          />
          <text x={x(h.on)} y={10} textAnchor="middle" fill="currentColor" style={{ fontSize: 11 }}>
            {h.words.slice(0, 22)}
          </text>
        </g>
      ))}
    </>
  )
}
