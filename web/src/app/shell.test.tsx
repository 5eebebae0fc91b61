import { act, fireEvent, screen, waitFor } from "@testing-library/react"
import { Route, Routes } from "react-router"
import { describe, expect, it, vi } from "vitest"
import { serve, SETTINGS, show } from "../testing/harness.test"
import { forgetInterface, onOtherInterface, servedInterface } from "../api/served"
import { BottomBar } from "./BottomBar"
import { Channel } from "./Channel"
import { applyTheme } from "./colourMode"
import { newerIsHere } from "./fresh"
import { NewerLine } from "./NewerLine"
import { Shell } from "./Shell"

const STATIONS = {
  "GET /api/stations": {
    body: [
      { key: "round", figure: "2 pots today", ec_uS_cm: null },
      { key: "water", figure: "34 µS · Rain", ec_uS_cm: 34 },
      { key: "mix", figure: "412 µS · last can", ec_uS_cm: 412 },
    ],
  },
}

describe("the channel", () => {
  it("carries each station’s live figure and says where one is", async () => {
    serve({ ...SETTINGS, ...STATIONS })
    show(<Channel />, "/mix")
    await screen.findByText("412 µS · last can")
    expect(screen.getByRole("link", { current: "page", hidden: true }).textContent).toContain("Mix")
    expect(
      screen.getAllByRole("link", { hidden: true }).map((l) => l.getAttribute("aria-keyshortcuts")),
    ).toEqual(["1", "2", "3", "4", "5", "6", "7"])
  })
  it("keeps five places at the thumb and the rest under More", () => {
    show(<BottomBar />, "/flush")
    expect(screen.getAllByRole("link")).toHaveLength(4)
    const more = screen.getByRole("button", { name: "More" })
    fireEvent.click(more)
    expect(more.getAttribute("aria-expanded")).toBe("true")
    expect(screen.getAllByRole("link").map((l) => l.textContent)).toEqual(
      expect.arrayContaining(["Water", "Flush", "Shelf"]),
    )
  })
})

describe("the shell", () => {
  it("draws the channel at a desk and the bottom bar on a phone, and changes when the window does", async () => {
    let wide = true
    const heard = new Set<() => void>()
    vi.stubGlobal("matchMedia", () => ({
      matches: wide,
      addEventListener: (_: string, changed: () => void) => heard.add(changed),
      removeEventListener: (_: string, changed: () => void) => heard.delete(changed),
    }))
    serve({ ...SETTINGS, ...STATIONS })
    show(
      <Routes>
        <Route element={<Shell />}>
          <Route path="*" element={<p>the page</p>} />
        </Route>
      </Routes>,
    )
    await screen.findByText("412 µS · last can")
    expect(screen.queryByRole("button", { name: "More" })).toBeNull()
    wide = false
    act(() => heard.forEach((changed) => changed()))
    expect(screen.getByRole("button", { name: "More" })).toBeTruthy()
    expect(screen.queryByText("412 µS · last can")).toBeNull()
  })
  it("shows a page only once the forms’ lists are there, and says what is wrong if they are not", async () => {
    serve({
      "GET /api/settings": { body: { theme: "dark" } },
      "GET /api/options": { status: 500, body: { detail: "Something broke." } },
    })
    show(
      <Routes>
        <Route element={<Shell />}>
          <Route path="*" element={<p>the page</p>} />
        </Route>
      </Routes>,
    )
    await screen.findByText("Something broke.")
    expect(screen.queryByText("the page")).toBeNull()
    serve({ ...SETTINGS, ...STATIONS })
    show(
      <Routes>
        <Route element={<Shell />}>
          <Route path="*" element={<p>the page</p>} />
        </Route>
      </Routes>,
    )
    await screen.findByText("the page")
  })
  it("follows the theme of the settings", async () => {
    serve({ ...SETTINGS, ...STATIONS, "GET /api/settings": { body: { theme: "dark" } } })
    show(
      <Routes>
        <Route element={<Shell />}>
          <Route path="*" element={<p>x</p>} />
        </Route>
      </Routes>,
    )
    await waitFor(() => expect(document.documentElement.classList.contains("dark")).toBe(true))
    applyTheme("light")
    expect(document.documentElement.className).toContain("light")
    expect(document.documentElement.classList.contains("dark")).toBe(false)
  })
})

describe("a page older than its server", () => {
  it("offers the newer one once the server ships another interface, and not before", async () => {
    forgetInterface()
    const off = onOtherInterface(() => newerIsHere(() => undefined))
    serve({ ...SETTINGS, ...STATIONS })
    show(<NewerLine />)
    servedInterface("one")
    servedInterface(null)
    servedInterface("one")
    expect(screen.queryByText(/newer version of Fenwa/)).toBeNull()
    act(() => servedInterface("two"))
    await screen.findByText(/newer version of Fenwa/)
    off()
  })
})
