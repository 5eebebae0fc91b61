// Depth of colour is conductivity: one ramp, logarithmic, for water and nothing else.
import { scaleLog } from "d3-scale"

const STOPS_uS = [5, 25, 100, 400, 1200, 4000]
// lightness falls evenly, so that it reads in grey and to colour-blind eyes
const COLOURS = ["#e4f3f2", "#b3dcdc", "#6ab4c2", "#2d7fa3", "#33478f", "#3a1d5e"]

const ramp = scaleLog<string>().domain(STOPS_uS).range(COLOURS).clamp(true)

/** Colour of a water at this conductivity. */
export const saltColour = (ec_uS_cm: number) => ramp(Math.max(ec_uS_cm, 0.5))

/** Colour of text on a water of this depth. */
export const onSalt = (ec_uS_cm: number) => (ec_uS_cm > 330 ? "#ffffff" : "#15252b")

/** CSS gradient along a logarithmic axis. */
export function saltGradient(low: number, high: number): string {
  const x = scaleLog().domain([low, high]).range([0, 100])
  const inside = STOPS_uS.filter((s) => s > low && s < high)
  return [low, ...inside, high].map((s) => `${saltColour(s)} ${x(s).toFixed(1)}%`).join(", ")
}
