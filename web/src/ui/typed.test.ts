import { afterEach, describe, expect, it } from "vitest"
import type { Schemas } from "../api/client"
import {
  figure,
  weekdayOf,
  amount,
  day,
  readAs,
  readerPen,
  spanIn,
  tick,
  weekDay,
  withUnit,
} from "./format"
import { besideField, drawn, inField, parted, typedIn } from "./typed"

const one = { factor: 1, offset: 0, digits: 3 }
const NEAR = { ec: { unit: "µS/cm", ...one }, length: { unit: "cm", ...one } }
const FAR = {
  ec: { unit: "ppm (0.7 scale)", factor: 0.7, offset: 0, digits: 3 },
  temperature: { unit: "°F", factor: 1.8, offset: 32, digits: 3 },
  length: { unit: "in", factor: 1 / 2.54, offset: 0, digits: 3 },
}
const read = (display: object, date_order = "day first") =>
  readAs({ display, date_order } as unknown as Schemas["SettingsOut"])
afterEach(() => read(NEAR))

describe("a number beside a unit the reader chose", () => {
  it.each([
    ["4.7", "cm", "4.7 in as cm"],
    ["70", "mm", "70 in as mm"],
    ["68", "°C", "68 °F as °C"],
    ["350", "µS/cm", "350 ppm (0.7 scale) as µS/cm"],
    ["  ", "cm", ""],
    ["3", "mL", "3"],
  ])("goes out with it: %s beside %s", (text, unit, sent) => {
    read(FAR)
    expect(typedIn(text, unit)).toBe(sent)
    expect(inField(sent, unit)).toBe(text.trim())
    expect(parted(sent).text).toBe(text.trim())
  })
  it("stays as it is where the field's own unit was chosen", () => {
    read(NEAR)
    expect(typedIn("4.7", "cm")).toBe("4.7")
    expect(besideField("mm")).toBe("mm")
    expect(drawn("4,7", "cm")).toBe(4.7)
  })
  it("shows what is stored in the reader's unit, and draws what is typed in the field's own", () => {
    read(FAR)
    expect(inField("10.16", "cm")).toBe("4")
    expect(inField("many", "cm")).toBe("many")
    expect(drawn("4 in as mm", "mm")).toBeCloseTo(101.6)
    expect(drawn("10", "mm")).toBe(10)
    expect([drawn("", "mm"), drawn("many in as mm", "mm")]).toEqual([null, null])
  })
  it("keeps the unit of an entry that waits whatever is chosen since", () => {
    read(NEAR)
    expect(parted("350 ppm (0.7 scale) as µS/cm")).toEqual({
      text: "350",
      unit: "ppm (0.7 scale)",
      tail: " ppm (0.7 scale) as µS/cm",
    })
    expect(parted("350")).toEqual({ text: "350", unit: "", tail: "" })
  })
})

describe("a figure", () => {
  it.each([
    [0, 3, "0"],
    [1234567, 6, "1\u202f234\u202f567"],
    [999.5, 3, "1\u202f000"],
    [9.996, 3, "10"],
    [0.0004567, 3, "0.000457"],
    [1e-9, 2, "0.000000001"],
    [-1234.5, 3, "\u22121\u202f235"],
    [0.10000000000000003, 3, "0.1"],
    [120, 2, "120"],
  ])("of %s with %s significant digits", (value, digits, said) => {
    expect(figure(value, digits)).toBe(said)
  })
  it("is written as the browser writes it in English", () => {
    for (let value = 3e-7; value < 3e9; value *= 1.0371)
      for (const digits of [1, 2, 3, 6])
        for (const x of [value, -value, Number(value.toPrecision(3)), Math.round(value) + 0.5]) {
          const whole = Math.abs(x) >= 10 ** (digits - 1)
          const how = whole ? { maximumFractionDigits: 0 } : { maximumSignificantDigits: digits }
          const said = new Intl.NumberFormat("en-GB", how).format(x)
          expect(figure(x, digits)).toBe(said.replace(/,/g, "\u202f").replace("-", "\u2212"))
        }
  })
})

describe("figures and days of the reader", () => {
  it("are written in the units chosen", () => {
    read(FAR)
    expect(amount(500, "µS/cm")).toBe("350 ppm (0.7 scale)")
    expect(spanIn(0, 25, "°C")).toBe("32 to 77")
    expect(withUnit(101.6, "mm")).toEqual({ text: "4", unit: "in" })
    expect(withUnit(3, "mL")).toEqual({ text: "3", unit: "mL" })
    expect(readerPen()).toEqual({ unit: "ppm", scale: "0.7" })
  })
  it.each([
    ["day first", "23 Nov", "Mon 23 Nov", "23 Nov"],
    ["month first", "Nov 23", "Mon, Nov 23", "Nov 23"],
    ["ISO", "2026-11-23", "Mon 2026-11-23", "11-23"],
  ])("are in the order chosen: %s", (order, plain, week, mark) => {
    read(NEAR, order)
    expect(day("2026-11-23", "2026-11-24")).toBe(plain)
    expect(weekDay("2026-11-23")).toBe(week)
    expect(tick(new Date("2026-11-23T12:00:00Z"))).toBe(mark)
    expect(weekdayOf("2026-11-23")).toBe("Monday")
    expect(weekdayOf("2026-11-29")).toBe("Sunday")
  })
})
