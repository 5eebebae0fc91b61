import { fireEvent, screen, waitFor } from "@testing-library/react"
import { scaleLog } from "d3-scale"
import { describe, expect, it } from "vitest"
import { isHere, STATIONS } from "../app/stations"
import { onSalt, saltColour, saltGradient } from "../app/ramp"
import { KeyHelp } from "../app/KeyHelp"
import { ROW, serve, SETTINGS, show, WORKING } from "../testing/harness.test"
import { CanDrawing } from "./CanDrawing"
import { useNotice } from "./noticeContext"
import { PotRail } from "./PotRail"
import { Quantity } from "./Quantity"
import { Rail } from "./Rail"

describe("a quantity", () => {
  it("shows value, unit and range", async () => {
    show(<Quantity label="EC" kind="ec" value={412.4} low={390} high={434} />)
    expect((await screen.findByText(/412/)).textContent).toBe("412 µS/cm (390 to 434)")
  })
  it("says what was not measured instead of guessing", () => {
    show(<Quantity label="EC" kind="ec" value={null} />)
    screen.getByText("not measured")
  })
  it("keeps zero apart from not measured", () => {
    show(<Quantity label="Urea" value={0} unit="mg/L" />)
    expect(screen.getByText(/^0/).textContent).toBe("0 mg/L")
  })
  it("follows the unit of the settings", async () => {
    serve({
      ...SETTINGS,
      "GET /api/settings": {
        body: { display: { ec: { unit: "mS/cm", factor: 0.001, offset: 0, digits: 3 } } },
      },
    })
    show(<Quantity label="EC" kind="ec" value={412} />)
    await waitFor(() => expect(screen.getByText(/0.412/).textContent).toBe("0.412 mS/cm"))
  })
  it("opens its working on a click", async () => {
    show(
      <Quantity
        label="Dose"
        value={0.4615}
        unit="g/L"
        working={{ kind: "here", working: WORKING }}
      />,
    )
    fireEvent.click(screen.getByRole("button", { name: "Dose: 0.462 g/L. Show working" }))
    await screen.findByText("N_t / N_g", { exact: false })
    expect(screen.getByText("= 60 / 130")).toBeTruthy()
    for (const says of [
      "No report for the rain.",
      "Mind the scale.",
      "Feeds below 3000 µS/cm.",
      "Computed in mix.dose.dose",
    ])
      screen.getByText(says)
    await screen.findByText("The product’s own label")
  })
  it("states a value that no arithmetic gives, with by what it was found", async () => {
    const found = {
      symbol: "I",
      label: "ionic strength",
      formula: "",
      value: 0.0041,
      unit: "mol/L",
    }
    const working = { ...WORKING, steps: [{ ...found, by: "fixed point" }] }
    show(<Quantity label="I" value={0.0041} unit="mol/L" working={{ kind: "here", working }} />)
    fireEvent.click(screen.getByRole("button", { name: /Show working/ }))
    await screen.findByText("is found to be", { exact: false })
    screen.getByText("by fixed point")
  })
  it("fetches a working that is not at hand, and says when it cannot", async () => {
    show(
      <Quantity
        label="Dose"
        value={1}
        working={{
          kind: "fetch",
          key: "x",
          load: () => Promise.reject(new Error("Pot 9 is not there.")),
        }}
      />,
    )
    fireEvent.click(screen.getByRole("button"))
    await screen.findByText("Pot 9 is not there.")
  })
})

describe("the rail", () => {
  const at = (element: Element | null, name: string) => Number(element?.getAttribute(name))
  it("lays salt from left to right on a logarithmic axis", () => {
    const { container } = show(
      <Rail
        label="r"
        value={200}
        low={100}
        high={400}
        ceiling={600}
        band={[150, 400]}
        measured={300}
      />,
    )
    const blob = at(container.querySelector("circle"), "cx")
    const ceiling = at(container.querySelector("line"), "x1")
    expect(blob).toBeLessThan(ceiling)
    const ten = show(<Rail label="r" value={20} />).container.querySelector("circle")
    expect(blob - at(ten, "cx")).toBeCloseTo(242 / Math.log10(400), 0)
  })
  it("clamps what lies beyond its ends and leaves out what is not known", () => {
    const { container } = show(<Rail label="r" value={null} measured={99_999} />)
    expect(container.querySelector("circle")).toBeNull()
    expect(container.querySelector("rect[transform]")?.getAttribute("transform")).toContain(
      "translate(246 13)",
    )
  })
  it("says in words what it draws", () => {
    show(<PotRail row={ROW} />)
    screen.getByRole("img", {
      name: "P-06: predicted reading 409, comfortable 150 to 400, ceiling 600 µS/cm",
    })
    show(<PotRail row={{ ...ROW, code: "N-1", reading_uS_cm: null }} />)
    screen.getByRole("img", { name: /N-1: predicted reading not known/ })
  })
})

const parts = (colour: string): [number, number, number] => {
  const [red = 0, green = 0, blue = 0] = colour.startsWith("#")
    ? [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16))
    : (colour.match(/\d+/g) ?? []).map(Number)
  return [red, green, blue]
}
const light = (colour: string) =>
  parts(colour).reduce(
    (sum, c, i) => sum + ([0.2126, 0.7152, 0.0722][i] ?? 0) * (c / 255) ** 2.2,
    0,
  )

describe("depth of colour", () => {
  const steps = [1, 5, 12, 25, 60, 100, 250, 400, 700, 1200, 2500, 4000, 9000]
  it("grows darker with conductivity, so that it reads in grey", () => {
    const shades = steps.map((ec) => light(saltColour(ec)))
    for (const [i, shade] of shades.entries())
      if (i) expect(shade).toBeLessThanOrEqual((shades[i - 1] ?? 1) + 1e-9)
    expect((shades[0] ?? 0) - (shades.at(-1) ?? 1)).toBeGreaterThan(0.7)
  })
  it("bears its text at every depth", () => {
    for (const ec of steps) {
      const [a, b] = [light(saltColour(ec)), light(onSalt(ec))].sort((x, y) => y - x)
      expect(((a ?? 0) + 0.05) / ((b ?? 0) + 0.05)).toBeGreaterThan(4)
    }
  })
  it("lies between its stops as an axis does", () => {
    const stops = [5, 25, 100, 400, 1200, 4000]
    const axis = scaleLog<string>().domain(stops).range(stops.map(saltColour)).clamp(true)
    for (let ec = 0.5; ec < 20_000; ec *= 1.07) expect(saltColour(ec)).toBe(axis(Math.max(ec, 0.5)))
    expect(saltColour(0)).toBe(saltColour(5))
  })
  it("has a gradient that starts and ends where the axis does", () => {
    expect(saltGradient(5, 2000)).toMatch(/ 0\.0%.* 100\.0%$/)
    expect(saltGradient(10, 1000)).toContain(`${saltColour(100)} 50.0%`)
  })
  it("fills a can at the colour of its water", () => {
    const { container } = show(<CanDrawing ec={400} share={0.5} letter="A" />)
    expect(container.querySelector("path")?.getAttribute("fill")).toBe(saltColour(400))
    expect(container.querySelector("text")?.textContent).toBe("A")
  })
})

describe("stations", () => {
  it("know where they are", () => {
    expect(STATIONS.map((s) => isHere(s.to, "/pots/6"))).toEqual([
      false,
      false,
      false,
      true,
      false,
      false,
      false,
    ])
    expect(isHere("/", "/")).toBe(true)
  })
  it("list their keys only when asked", () => {
    show(<KeyHelp open={false} onClose={() => undefined} />)
    expect(screen.queryByRole("dialog")).toBeNull()
    show(<KeyHelp open onClose={() => undefined} />)
    expect(screen.getByRole("dialog").textContent).toContain("find a pot")
  })
})

function Says({ undo }: { undo: () => void }) {
  const notice = useNotice()
  return (
    <button type="button" onClick={() => notice({ text: "Saved.", undo })}>
      go
    </button>
  )
}

describe("a notice", () => {
  it("is announced and can be undone once", () => {
    let undone = 0
    show(
      <Says
        undo={() => {
          undone += 1
        }}
      />,
    )
    fireEvent.click(screen.getByText("go"))
    expect(screen.getByRole("status").textContent).toContain("Saved.")
    fireEvent.click(screen.getByRole("button", { name: "Undo" }))
    expect(undone).toBe(1)
    expect(screen.queryByRole("button", { name: "Undo" })).toBeNull()
  })
})
