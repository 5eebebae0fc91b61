import { render } from "@testing-library/react"
import { expect, it } from "vitest"
import { LiveReadings } from "./LiveReadings"

const STOP = 100
const heights = (at: number[]) => {
  const read = at.map((y, id) => ({ id, x: 10, y, said: `${id}` }))
  const { container } = render(
    <svg>
      <LiveReadings read={read} stop={STOP} />
    </svg>,
  )
  return [...container.querySelectorAll("text")].map((t) => Number(t.getAttribute("y")))
}

it("writes figures in turn above and below their marks", () => {
  expect(heights([20, 30, 40])).toEqual([-6, 16, -6])
})

it("keeps every figure off the line of the stop", () => {
  for (let y = STOP - 40; y <= STOP + 40; y += 1)
    for (const [i, dy] of heights([y, y]).entries())
      expect(Math.abs(y + dy - 4 - STOP), `${y}, ${i}`).toBeGreaterThan(9)
})
