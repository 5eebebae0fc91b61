import type { Schemas } from "../../api/client"
import { day } from "../../ui/format"
import { useWidth } from "../../ui/useWidth"
import type { Photo } from "./queries"
import { RingEvents } from "./RingEvents"

const EDGE = 46
const LINE = 40
const DAY_MS = 86_400_000

/** A line of time with a square for each photo kept; two rings choose the two that are shown. */
export function TimeRings({
  photos,
  at,
  happened,
  onAt,
}: {
  photos: Photo[]
  at: [number, number]
  happened: Schemas["Happened"][]
  onAt: (at: [number, number]) => void
}) {
  const [ref, wide] = useWidth<HTMLDivElement>(640)
  const time = (iso: string) => Date.parse(iso) / DAY_MS
  const first = time(photos[0]?.on ?? "")
  const span = Math.max(1, time(photos.at(-1)?.on ?? "") - first)
  const x = (iso: string) => EDGE + ((time(iso) - first) / span) * (wide - 2 * EDGE)
  const move = (ring: 0 | 1, to: number) => {
    const low = ring === 0 ? 0 : at[0] + 1
    const high = ring === 0 ? at[1] - 1 : photos.length - 1
    const stop = Math.max(low, Math.min(high, to))
    onAt(ring === 0 ? [stop, at[1]] : [at[0], stop])
  }
  const onKey = (ring: 0 | 1) => (e: React.KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[e.key]
    const end = { Home: 0, End: photos.length - 1 }[e.key]
    if (step === undefined && end === undefined) return
    e.preventDefault()
    move(ring, end ?? at[ring] + (step ?? 0))
  }
  const nearest = (i: number) => move(Math.abs(i - at[0]) <= Math.abs(i - at[1]) ? 0 : 1, i)
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${wide} 84`}
        width="100%"
        role="group"
        aria-label="Photos in time"
        fill="none"
      >
        <line
          x1={EDGE}
          x2={wide - EDGE}
          y1={LINE}
          y2={LINE}
          stroke="currentColor"
          opacity="0.4"
          strokeWidth="2"
        />
        <line
          x1={x(photos[at[0]]?.on ?? "")}
          x2={x(photos[at[1]]?.on ?? "")}
          y1={LINE}
          y2={LINE}
          stroke="currentColor"
          strokeWidth="4"
        />
        <RingEvents happened={happened} x={x} foot={LINE} />
        {photos.map((p, i) => (
          <rect
            key={p.id}
            x={x(p.on) - 6}
            y={LINE - 6}
            width="12"
            height="12"
            rx="2"
            fill="var(--chakra-colors-bg-panel)"
            stroke="currentColor"
            strokeWidth="1.5"
            style={{ cursor: "pointer" }}
            onClick={() => nearest(i)}
          />
        ))}
        {([0, 1] as const).map((ring) => {
          const p = photos[at[ring]]
          return (
            p && (
              <g
                key={ring}
                role="slider"
                tabIndex={0}
                aria-label={ring === 0 ? "Earlier photo" : "Later photo"}
                aria-valuemin={1}
                aria-valuemax={photos.length}
                aria-valuenow={at[ring] + 1}
                aria-valuetext={day(p.on)}
                onKeyDown={onKey(ring)}
                onPointerDown={(e) => e.currentTarget.setPointerCapture?.(e.pointerId)}
                onPointerMove={(e) => {
                  const box = e.currentTarget.ownerSVGElement?.getBoundingClientRect()
                  if (e.buttons === 0 || !box) return
                  const px = ((e.clientX - box.left) / box.width) * wide
                  const by = photos.map((q, i) => ({ i, d: Math.abs(x(q.on) - px) }))
                  move(ring, by.reduce((a, b) => (b.d < a.d ? b : a)).i)
                }}
                style={{ cursor: "ew-resize" }}
              >
                <circle cx={x(p.on)} cy={LINE} r="20" fill="transparent" />
                <circle
                  cx={x(p.on)}
                  cy={LINE}
                  r="15"
                  fill="var(--chakra-colors-bg-panel)"
                  stroke="currentColor"
                  strokeWidth="3"
                />
                <path
                  d={`M${x(p.on) - 4} ${LINE - 4} l-4 4 l4 4 M${x(p.on) + 4} ${LINE - 4} l4 4 l-4 4`}
                  stroke="currentColor"
                  strokeWidth="1.8"
                />
                <text
                  x={x(p.on)}
                  y={LINE + 34}
                  textAnchor="middle"
                  fill="currentColor"
                  style={{ fontSize: 13, fontWeight: 600 }}
                >
                  {day(p.on)}
                </text>
              </g>
            )
          )
        })}
      </svg>
    </div>
  )
}
