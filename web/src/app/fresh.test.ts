import { afterEach, describe, expect, it, vi } from "vitest"
import { fetchNewer, isFresh, subscribeFresh } from "./fresh"

/** As a browser is that keeps the interface, or that does not. */
function withWorker(worker: unknown) {
  Object.defineProperty(globalThis.navigator, "serviceWorker", {
    configurable: true,
    value: worker,
  })
}

afterEach(() => withWorker(undefined))

describe("a newer interface at the server", () => {
  it("is fetched first where one is kept, and offered once it has come", async () => {
    const update = vi.fn().mockResolvedValue({})
    withWorker({ getRegistration: () => Promise.resolve({ update }) })
    await fetchNewer()
    expect(update).toHaveBeenCalledOnce()
    expect(isFresh()).toBe(false) // the worker says when it is here
  })
  it.each([
    ["the link is open and nothing is kept", undefined],
    ["nothing is registered", { getRegistration: () => Promise.resolve(undefined) }],
    ["the browser refuses", { getRegistration: () => Promise.reject(new Error("denied")) }],
    [
      "it cannot be fetched",
      {
        getRegistration: () => Promise.resolve({ update: () => Promise.reject(new Error("gone")) }),
      },
    ],
  ])("is offered by a reload where %s", async (_, worker) => {
    const told = vi.fn()
    const off = subscribeFresh(told)
    withWorker(worker)
    await fetchNewer()
    expect(told).toHaveBeenCalledOnce()
    expect(isFresh()).toBe(true)
    off()
  })
})
