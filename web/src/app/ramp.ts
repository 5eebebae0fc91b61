// Depth of colour is conductivity: one ramp, logarithmic, for water and nothing else. Every page shows its colours; the
// package for axes, three times the size of the first page's own code, is left to pages that draw one.

type Stop = { ec: number; red: number; green: number; blue: number }
const stop = (ec: number, colour: string): Stop => {
  const part = (at: number) => parseInt(colour.slice(at, at + 2), 16)
  return { ec, red: part(1), green: part(3), blue: part(5) }
}

// lightness falls evenly, so that it reads in grey and to colour-blind eyes
const WEAKEST = stop(5, "#e4f3f2")
const STRONGEST = stop(4000, "#3a1d5e")
const RAMP = [
  WEAKEST,
  stop(25, "#b3dcdc"),
  stop(100, "#6ab4c2"),
  stop(400, "#2d7fa3"),
  stop(1200, "#33478f"),
  STRONGEST,
]

/** How far along a logarithmic axis: 0 at its beginning, 1 at its end. */
const along = (x: number, low: number, high: number) => Math.log(x / low) / Math.log(high / low)

/** Colour of a water at this conductivity; the ends stand for what lies beyond them. */
export function saltColour(ec_uS_cm: number): string {
  const below = RAMP.findLast((s) => s.ec <= ec_uS_cm) ?? WEAKEST
  const above = RAMP.find((s) => s.ec > ec_uS_cm) ?? STRONGEST
  const t = below === above ? 0 : along(ec_uS_cm, below.ec, above.ec)
  const mixed = (part: "red" | "green" | "blue") =>
    Math.round(below[part] + (above[part] - below[part]) * t)
  return `rgb(${mixed("red")}, ${mixed("green")}, ${mixed("blue")})`
}

/** Colour of text on a water of this depth. */
export const onSalt = (ec_uS_cm: number) => (ec_uS_cm > 330 ? "#ffffff" : "#15252b")

/** CSS gradient along a logarithmic axis. */
export function saltGradient(low: number, high: number): string {
  const inside = RAMP.map((s) => s.ec).filter((s) => s > low && s < high)
  return [low, ...inside, high]
    .map((s) => `${saltColour(s)} ${(100 * along(s, low, high)).toFixed(1)}%`)
    .join(", ")
}
