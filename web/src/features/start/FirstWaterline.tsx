import { Box, Flex, Text } from "@chakra-ui/react"
import { scaleLog } from "d3-scale"
import { saltColour, saltGradient } from "../../app/ramp"
import { numberIn, ecScale } from "../../ui/format"
import { Card } from "../../ui/Page"
import { useWidth } from "../../ui/useWidth"
import { placeBeside, placeCentred } from "../water/waterlineLayout"
import type { Drawn } from "./answers"
import { Hanging, MUTED, ROW, Vessel } from "./FirstWaterlineParts"
import { Numbered } from "./Question"

const [LOW, HIGH, PAD] = [5, 2000, 20]
const TICKS = [5, 10, 20, 50, 100, 200, 500, 1000, 2000]

/** Waters float on the surface as wide as they are open; plants hang below at the most they may drink. */
export function FirstWaterline({ drawn }: { drawn?: Drawn }) {
  const [ref, width] = useWidth<HTMLDivElement>(760)
  const x = scaleLog()
    .domain([LOW, HIGH])
    .range([PAD, width - PAD])
    .clamp(true)
  const waters = drawn?.waters ?? []
  const plants = drawn?.plan.result.plants ?? []
  const floats = waters.map((w, i) => {
    const [from, to] = [x(w.low_uS_cm), x(w.high_uS_cm)]
    const label = w.measured
      ? numberIn(w.low_uS_cm, "µS/cm")
      : `${numberIn(w.low_uS_cm, "µS/cm")} to ${numberIn(w.high_uS_cm, "µS/cm")}, not read yet`
    return {
      key: String(i),
      w,
      from,
      to,
      label,
      x: (from + to) / 2,
      width: Math.max(label.length * 6.4, to - from + 34, 96),
    }
  })
  const above = placeCentred(floats, width)
  const marks = [...new Set(plants.map((p) => p.limit_uS_cm))].map((limit) => {
    const names = plants.filter((p) => p.limit_uS_cm === limit).map((p) => p.name)
    const most = width < 520 ? 1 : 3
    const more = names.length > most ? ` +${names.length - most}` : ""
    const text = `${names.slice(0, most).join(", ")}${more}`
    return { key: String(limit), text, x: x(limit), width: (text.length + 5) * 7 }
  })
  const below = placeBeside(marks, width)
  const surface = Math.max(1, ...above.map((a) => a.row + 1)) * ROW + 8
  const height = surface + 56 + Math.max(2, ...below.map((b) => b.row + 1)) * 24
  const ticks = width < 520 ? TICKS.filter((t) => [5, 20, 100, 500, 2000].includes(t)) : TICKS
  const words = [
    ...floats.map((f) => `${f.w.name}: ${f.label}`),
    ...marks.map((m) => `${m.text}: at most ${m.key}`),
  ].join("; ")
  return (
    <Card title="Your first waterline">
      <Box ref={ref} overflow="hidden">
        <svg width={width} height={height} role="img" aria-label={`${ecScale()}. ${words}`}>
          <defs>
            {floats.map((f) => (
              <pattern
                key={f.key}
                id={`hatch${f.key}`}
                width="7"
                height="7"
                patternUnits="userSpaceOnUse"
                patternTransform="rotate(45)"
              >
                <rect
                  width="4"
                  height="7"
                  fill={saltColour(Math.sqrt(f.w.low_uS_cm * f.w.high_uS_cm))}
                />
              </pattern>
            ))}
          </defs>
          {above.map((a) => {
            const f = floats[Number(a.key)]
            if (!f) return null
            return <Vessel key={a.key} f={f} a={a} surface={surface} />
          })}
          <foreignObject x={PAD} y={surface} width={Math.max(0, width - 2 * PAD)} height="12">
            <div
              style={{
                height: 12,
                background: `linear-gradient(90deg, ${saltGradient(LOW, HIGH)})`,
              }}
            />
          </foreignObject>
          {ticks.map((t) => (
            <text
              key={t}
              x={x(t)}
              y={surface + 27}
              textAnchor="middle"
              fill={MUTED}
              style={{ fontSize: 11.5 }}
            >
              {numberIn(t, "µS/cm")}
            </text>
          ))}
          {below.map((b) => (
            <Hanging
              key={b.key}
              b={b}
              surface={surface}
              text={marks.find((m) => m.key === b.key)?.text ?? ""}
            />
          ))}
        </svg>
      </Box>
      <Box color="fg.muted" fontSize="sm">
        {waters.length > 0 && (
          <Flex gap="2" align="center">
            <Numbered n={2} />
            <Text>Your waters. Hatched: usual, nobody has read it.</Text>
          </Flex>
        )}
        {plants.length > 0 && (
          <Flex gap="2" align="center" mt="1">
            <Numbered n={1} />
            <Text>Your plants. Each may drink any water that floats to the left of its mark.</Text>
          </Flex>
        )}
        {waters.length + plants.length === 0 && (
          <Text>Your plants hang below, your waters float above.</Text>
        )}
        <Text mt="1">{ecScale()}</Text>
      </Box>
    </Card>
  )
}
