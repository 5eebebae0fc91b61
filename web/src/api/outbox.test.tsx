import { beforeEach, describe, expect, it, vi } from "vitest"
import { serve } from "../testing/harness.test"
import type { Entry, Outcome } from "./outbox"

const ok = {
  "POST /api/pours": (s: { body: unknown }) => ({
    status: 201,
    body: { pour_ids: [(s.body as { n: number }).n] },
  }),
}
const entry = (n: number, more: Partial<Entry> = {}): Omit<Entry, "n"> => ({
  key: `key-${n}`,
  path: "/api/pours",
  body: { n, note: "" },
  title: `P-0${n}`,
  ...more,
})
const gone = () => vi.stubGlobal("fetch", () => Promise.reject(new TypeError("no line")))

/** A page just loaded: the module anew over the same database. */
async function page() {
  vi.resetModules()
  return import("./outbox")
}

beforeEach(async () => {
  const { kept } = await page()
  const db = await kept()
  await Promise.all([db.clear("entries"), db.clear("answers"), db.clear("walks")])
  db.close()
})

describe("the outbox", () => {
  it("answers at once while the line stands, and keeps nothing back", async () => {
    const sent = serve(ok)
    const box = await page()
    expect(await box.post(entry(1))).toEqual({
      state: "arrived",
      answer: { pour_ids: [1] },
    } satisfies Outcome)
    expect(sent.map((s) => s.key)).toEqual(["key-1"])
    expect(box.waiting()).toEqual([])
  })
  it("says so where the browser can keep nothing, and claims nothing", async () => {
    vi.stubGlobal("indexedDB", {
      open: () => {
        throw new DOMException("denied", "SecurityError")
      },
    })
    const box = await page()
    await expect(box.post(entry(1))).rejects.toThrow("Open Fenwa in an ordinary window")
    expect(box.waiting()).toEqual([])
  })
  it("keeps what was done without a line over a reload, then sends each once and in order", async () => {
    gone()
    const box = await page()
    for (const n of [1, 2, 3]) expect((await box.post(entry(n))).state).toBe("waiting")
    expect(box.waiting().map((e) => e.title)).toEqual(["P-01", "P-02", "P-03"])
    await box.send()
    const sent = serve(ok)
    const again = await page()
    await again.send()
    expect(sent.map((s) => s.key)).toEqual(["key-1", "key-2", "key-3"])
    await again.send()
    expect(sent).toHaveLength(3)
    expect(again.waiting()).toEqual([])
    expect(again.arrived()).toBe(3)
  })
  it("gives a pour the id of the can that waited before it", async () => {
    gone()
    const box = await page()
    await box.post(entry(7, { path: "/api/batches", key: "can" }))
    await box.post(entry(8, { path: "/api/batches/{from}/reading", from: "can", key: "pen" }))
    await box.post(entry(9, { from: "can" }))
    await box.send()
    const sent = serve({
      ...ok,
      "POST /api/batches": { status: 201, body: { id: 42 } },
      "POST /api/batches/42/reading": { status: 201, body: {} },
    })
    await (await page()).send()
    expect(sent.map((s) => s.path)).toEqual([
      "/api/batches",
      "/api/batches/42/reading",
      "/api/pours",
    ])
    expect(sent[2]?.body).toMatchObject({ n: 9, batch_id: 42 })
  })
  it("hands a refusal back to its form, and holds up nobody else", async () => {
    gone()
    const box = await page()
    await box.post(entry(1))
    await box.post(entry(2))
    await box.send()
    const sent = serve({
      "POST /api/pours": (s) =>
        (s.body as { n: number; note: string }).n === 1 && !(s.body as { note: string }).note
          ? { status: 409, body: { detail: "Write a word." } }
          : { status: 201, body: { pour_ids: [1] } },
    })
    const later = await page()
    await later.send()
    expect(later.waiting().map((e) => [e.title, e.problem])).toEqual([["P-01", "Write a word."]])
    expect(await later.post(entry(1, { key: "key-9" }))).toMatchObject({
      state: "refused",
      problem: { message: "Write a word." },
    })
    expect(later.waiting()).toHaveLength(1)
    await later.sendAgain("key-1", { note: "shrivelled" })
    expect(later.waiting()).toEqual([])
    expect(sent.at(-1)).toMatchObject({ key: "key-1", body: { n: 1, note: "shrivelled" } })
  })
  it("sets apart what the server broke on, sends the later ones, and sends it again when asked", async () => {
    gone()
    const box = await page()
    for (const n of [1, 2, 3]) await box.post(entry(n))
    await box.send()
    let broken = true
    const sent = serve({
      "POST /api/pours": (s) =>
        (s.body as { n: number }).n === 2 && broken
          ? { status: 500, body: { code: "internal", detail: "Something broke." } }
          : { status: 201, body: { pour_ids: [1] } },
    })
    const again = await page()
    await again.send()
    expect(sent.map((s) => s.key)).toEqual(["key-1", "key-2", "key-3"])
    expect(again.waiting().map((e) => [e.title, e.problem])).toEqual([["P-02", "Something broke."]])
    await again.send()
    expect(sent).toHaveLength(3)
    broken = false
    await again.sendAgain("key-2")
    expect(sent.map((s) => s.key)).toEqual(["key-1", "key-2", "key-3", "key-2"])
    expect(again.waiting()).toEqual([])
  })
  it("waits when somebody else answers in Fenwa's place, and claims nothing", async () => {
    vi.stubGlobal("fetch", () =>
      Promise.resolve(new Response("<html>Sign in to this network</html>", { status: 200 })),
    )
    const box = await page()
    expect((await box.post(entry(1))).state).toBe("waiting")
    expect(box.waiting()).toHaveLength(1)
    vi.stubGlobal("fetch", () => Promise.resolve(new Response("{}", { status: 503 })))
    await box.send()
    expect(box.waiting().map((e) => e.problem)).toEqual([undefined])
  })
  it("holds what was poured from a refused can, lets it follow the can, and says when the can is gone", async () => {
    gone()
    const box = await page()
    await box.post(entry(7, { path: "/api/batches", key: "can" }))
    await box.post(entry(9, { from: "can" }))
    await box.post(entry(8))
    await box.send()
    let refused = true
    const sent = serve({
      ...ok,
      "POST /api/batches": () =>
        refused
          ? { status: 422, body: { detail: "Volume is empty." } }
          : { status: 201, body: { id: 42 } },
    })
    const later = await page()
    await later.send()
    expect(sent.map((s) => s.path)).toEqual(["/api/batches", "/api/pours"])
    expect(later.waiting().map((e) => later.heldBy(e))).toEqual(["", "set apart"])
    refused = false
    await later.sendAgain("can", { volume: "2" })
    expect(sent.at(-1)?.body).toMatchObject({ n: 9, batch_id: 42 })
    expect(later.waiting()).toEqual([])
    gone()
    await later.post(entry(5, { path: "/api/batches", key: "can-2" }))
    await later.post(entry(6, { from: "can-2" }))
    await later.drop("can-2")
    expect(later.waiting().map((e) => later.heldBy(e))).toEqual(["deleted"])
  })
  it("takes back what waits by dropping it, and what arrived by its answer", async () => {
    gone()
    const box = await page()
    await box.post(entry(1))
    expect(await box.takeBack("key-1")).toBeNull()
    expect(box.waiting()).toEqual([])
    serve(ok)
    await box.send()
    await box.post(entry(2))
    expect(await box.takeBack("key-2")).toEqual({ pour_ids: [2] })
  })
  it("waits while the door asks for a passphrase, and loses nothing by it", async () => {
    serve({ "POST /api/pours": { status: 401, body: { detail: "Sign in." } } })
    const box = await page()
    expect((await box.post(entry(1))).state).toBe("waiting")
    expect(box.waiting()).toHaveLength(1)
  })
})
