import { day } from "../../ui/format"
import { useRef, useState } from "react"
import { photoSource, type Photo, type Point } from "./queries"

export type Mode = "rim" | "midrib" | "outline" | "grey"
const STEP_px = 12

/** A photo that takes taps: two for the scale, some along a midrib, some around a blade. Arrow keys move a cross. */
export function Tapped({
  photo,
  mode,
  rim,
  midrib,
  outline,
  grey,
  onTap,
  onBack,
}: {
  photo: Photo
  mode: Mode
  rim: Point[]
  midrib: Point[]
  outline: Point[]
  grey: Point[]
  onTap: (p: Point, shown_px: number) => void
  onBack: () => void
}) {
  const svg = useRef<SVGSVGElement>(null)
  const { width_px: w, height_px: h } = photo
  const [cross, setCross] = useState<Point>({ x: w / 2, y: h / 2 })
  const [focused, setFocused] = useState(false)
  const r = Math.max(w, h) / 130
  const width = () => svg.current?.getBoundingClientRect().width ?? w
  const tap = (e: React.MouseEvent) => {
    const box = svg.current?.getBoundingClientRect()
    if (!box || box.width === 0) return
    onTap(
      { x: ((e.clientX - box.left) / box.width) * w, y: ((e.clientY - box.top) / box.height) * h },
      box.width,
    )
  }
  const onKey = (e: React.KeyboardEvent) => {
    const step = (e.shiftKey ? 1 : STEP_px) * (w / Math.max(1, width()))
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
      e.key
    ]
    if (by) {
      setCross({
        x: Math.max(0, Math.min(w, cross.x + step * (by[0] ?? 0))),
        y: Math.max(0, Math.min(h, cross.y + step * (by[1] ?? 0))),
      })
    } else if (e.key === "Enter" || e.key === " ") onTap(cross, width())
    else if (e.key === "Backspace" || e.key === "Delete") onBack()
    else return
    e.preventDefault()
  }
  const line = (points: Point[]) => points.map((p) => `${p.x},${p.y}`).join(" ")
  const dots = (points: Point[], on: boolean) =>
    points.map((p, i) => (
      <circle
        key={i}
        cx={p.x}
        cy={p.y}
        r={on ? r : r * 0.7}
        fill="none"
        stroke="var(--chakra-colors-on-photo)"
        strokeWidth={r / 2}
        style={{ paintOrder: "stroke", filter: "drop-shadow(0 0 2px black)" }}
      />
    ))
  const drawn = {
    fill: "none",
    stroke: "var(--chakra-colors-on-photo)",
    strokeWidth: r / 2.2,
    filter: "drop-shadow(0 0 2px black)",
  }
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${w} ${h}`}
      width="100%"
      style={{
        cursor: "crosshair",
        display: "block",
        maxHeight: "76vh",
        touchAction: "manipulation",
      }}
      role="application"
      tabIndex={0}
      aria-label={[
        `Photo of ${day(photo.on)}.`,
        "Arrow keys move a cross, Enter sets a point, Backspace takes the last one away.",
        `${{ rim, midrib, outline, grey }[mode].length} points set.`,
      ].join(" ")}
      onClick={tap}
      onKeyDown={onKey}
      onFocus={() => setFocused(true)}
      onBlur={() => setFocused(false)}
    >
      <image
        href={photoSource(photo.id, "screen")}
        width={w}
        height={h}
        preserveAspectRatio="none"
      />
      {rim.length === 2 && <polyline points={line(rim)} {...drawn} strokeDasharray={`${r} ${r}`} />}
      <polyline points={line(midrib)} {...drawn} />
      {outline.length > 1 && <polygon points={line(outline)} {...drawn} />}
      {dots(rim, mode === "rim")}
      {dots(midrib, mode === "midrib")}
      {dots(outline, mode === "outline")}
      {dots(grey, mode === "grey")}
      {focused && (
        <path
          d={`M${cross.x - 3 * r} ${cross.y}h${6 * r}M${cross.x} ${cross.y - 3 * r}v${6 * r}`}
          {...drawn}
        />
      )}
    </svg>
  )
}
