import { day } from "../../ui/format"
import { Box, Grid } from "@chakra-ui/react"
import type { Schemas } from "../../api/client"
import { photoSource } from "./queries"

type Compared = Schemas["Compared"]
type Laid = Schemas["Laid"]
type Trace = Schemas["Trace"]
type Box4 = { left: number; top: number; right: number; bottom: number }

const RULE_mm = 50

const matrix = (m: Laid) => `matrix(${m.a} ${m.b} ${m.c} ${m.d} ${m.e} ${m.f})`
const both = (a: Box4, b: Box4): Box4 => ({
  left: Math.min(a.left, b.left),
  top: Math.min(a.top, b.top),
  right: Math.max(a.right, b.right),
  bottom: Math.max(a.bottom, b.bottom),
})

/** Photos as they lie on the ruler: a millimetre is as long in one as in the other. */
export function OnRuler({
  compared,
  way,
  fade,
}: {
  compared: Compared
  way: string
  fade: number
}) {
  const { before, after, pair } = compared
  const frame = both(compared.before_frame, compared.after_frame)
  const wide = frame.right - frame.left
  const view = `${frame.left} ${frame.top} ${wide} ${frame.bottom - frame.top}`
  const photo = (p: Schemas["PhotoOut"], m: Laid, opacity = 1) => (
    <image
      key={p.id}
      href={photoSource(p.id, "screen")}
      width={p.width_px}
      height={p.height_px}
      preserveAspectRatio="none"
      transform={matrix(m)}
      opacity={opacity}
    />
  )
  const ruled = (
    <g stroke="var(--chakra-colors-on-photo)" strokeWidth={wide / 400} opacity="0.75">
      {lines(frame).map((y) => (
        <line
          key={y}
          x1={frame.left}
          x2={frame.right}
          y1={y}
          y2={y}
          strokeDasharray={`${wide / 90} ${wide / 90}`}
        />
      ))}
    </g>
  )
  const drawn = (label: string, what: React.ReactNode) => (
    <svg
      viewBox={view}
      width="100%"
      role="img"
      aria-label={label}
      style={{ background: "var(--chakra-colors-bg-inset)" }}
    >
      {what}
      {ruled}
    </svg>
  )
  if (way === "side")
    return (
      <Grid templateColumns={{ base: "minmax(0,1fr)", md: "1fr 1fr" }} gap="2" mt="2">
        <Box>
          {drawn(`Earlier photo, ${day(before.on)}`, [
            photo(before, pair.result.before),
            traces(compared.before_traces, wide, false),
          ])}
        </Box>
        <Box>
          {drawn(`Later photo, ${day(after.on)}`, [
            photo(after, pair.result.after),
            traces(compared.after_traces, wide, false),
          ])}
        </Box>
      </Grid>
    )
  const label = `${day(before.on)} and ${day(after.on)} over each other`
  return (
    <Box mt="2" maxW="720px">
      {drawn(
        label,
        way === "over"
          ? [photo(before, pair.result.before), photo(after, pair.result.after, fade)]
          : [
              photo(after, pair.result.after),
              traces(compared.after_traces, wide, false),
              traces(compared.before_traces, wide, true),
            ],
      )}
    </Box>
  )
}

/** Heights above and below the rim at which a line is drawn. [mm] */
function lines(frame: Box4): number[] {
  const first = Math.ceil(frame.top / RULE_mm) * RULE_mm
  const count = Math.floor((frame.bottom - first) / RULE_mm) + 1
  return Array.from({ length: Math.max(0, count) }, (_, i) => first + i * RULE_mm)
}

function traces(found: Trace[], wide: number, dashed: boolean) {
  return (
    <g
      key={dashed ? "earlier" : "now"}
      fill="none"
      stroke="var(--chakra-colors-on-photo)"
      strokeWidth={wide / 220}
    >
      {found.map((t, i) => {
        const points = t.points.map((p) => `${p.x},${p.y}`).join(" ")
        const dash = dashed ? `${wide / 60} ${wide / 80}` : undefined
        return t.closed ? (
          <polygon key={i} points={points} strokeDasharray={dash} />
        ) : (
          <polyline key={i} points={points} strokeDasharray={dash} />
        )
      })}
    </g>
  )
}
