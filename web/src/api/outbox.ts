// What was done at the bench waits here until Fenwa has it: kept in the browser, sent in order, stored once each.
import { type DBSchema, type IDBPDatabase, openDB } from "idb"
import { looking } from "./collection"
import { ApiProblem, type ProblemBody } from "./problem"

/** One write that waits. `from`: an earlier write, whose answered id is its `batch_id` or {from} in its path.
 * `blob`: a photo, sent as it is in place of the body. */
export type Entry = {
  n?: number
  key: string
  path: string
  body: Record<string, unknown>
  title: string
  from?: string
  blob?: Blob
  problem?: string
}
export type Outcome =
  | { state: "arrived"; answer: unknown }
  | { state: "waiting" }
  | { state: "refused"; problem: ApiProblem }

interface Kept extends DBSchema {
  entries: { key: number; value: Entry; indexes: { key: string } }
  answers: { key: string; value: { key: string; at: number; answer: unknown } }
  walks: { key: string; value: unknown }
}

const PATIENCE_MS = 6000 // a phone out of reach hangs: the thumb does not wait longer
const PHOTO_PATIENCE_MS = 90_000 // megabytes take their time
const AGAIN_MS = [1000, 2000, 4000, 8000, 15_000]
const WAIT = [401, 408, 429, 502, 503, 504] // not the entry's fault: it waits, and so does what comes after it
const ANSWERS_KEPT_MS = 7 * 86_400_000

let opened: Promise<IDBPDatabase<Kept>> | undefined
export const kept = () =>
  (opened ??= openDB<Kept>(looking() ? "fenwa-demonstration" : "fenwa", 1, {
    upgrade(db) {
      db.createObjectStore("entries", { keyPath: "n", autoIncrement: true }).createIndex(
        "key",
        "key",
        { unique: true },
      )
      db.createObjectStore("answers", { keyPath: "key" })
      db.createObjectStore("walks")
    },
  }))

let entries: readonly Entry[] = []
let answered: ReadonlySet<string> = new Set()
let arrivals = 0
let sending: Promise<void> | undefined
let failures = 0
let outside = false // the door asks for the passphrase again
let pages = 0 // that have started sending and not left
let timer: ReturnType<typeof setTimeout> | undefined
const listeners = new Set<() => void>()
const refusals = new Map<string, ApiProblem>()

export const waiting = () => entries
/** Whether the passphrase is asked for before anything is taken. */
export const isOutside = () => outside
/** Counts what has arrived, so that pages know when to ask anew. */
export const arrived = () => arrivals
export function subscribe(listener: () => void) {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}

async function refresh() {
  const db = await kept()
  entries = await db.getAll("entries")
  answered = new Set(await db.getAllKeys("answers"))
  listeners.forEach((l) => l())
}

/** Keep a write, then try to send it: the answer, a refusal, or the word that it waits. */
export async function post(entry: Omit<Entry, "n" | "problem">): Promise<Outcome> {
  try {
    await (await kept()).add("entries", { ...entry })
  } catch {
    throw new ApiProblem({
      title: "Nothing can be kept here",
      detail:
        "This browser keeps nothing: a private window, or its memory is full. Nothing was stored. " +
        "Open Fenwa in an ordinary window.",
    })
  }
  await refresh()
  const before = sending
  void send()
  if (failures > 0) return { state: "waiting" } // the line is known to be gone: nobody waits for it
  await Promise.race([
    (before ?? Promise.resolve()).then(() => send()),
    new Promise((done) => setTimeout(done, PATIENCE_MS)),
  ])
  const answer = await (await kept()).get("answers", entry.key)
  if (answer) return { state: "arrived", answer: answer.answer }
  const problem = refusals.get(entry.key)
  if (!problem) return { state: "waiting" }
  await drop(entry.key) // it is shown where it was entered, and sent again from there
  return { state: "refused", problem }
}

/** Send what waits, oldest first, one at a time. */
export function send(): Promise<void> {
  clearTimeout(timer)
  sending ??= run().finally(() => {
    sending = undefined
  })
  return sending
}

async function run() {
  const db = await kept()
  await refresh()
  for (let at = 0; at < entries.length;) {
    const entry = entries[at]
    if (!entry) return
    const from = entry.from ? await db.get("answers", entry.from) : undefined
    if (entry.problem || (entry.from && !from)) {
      at += 1 // refused before, or made from a can that was: the others go on
      continue
    }
    const id = (from?.answer as { id: number } | undefined)?.id
    const inPath = entry.path.includes("{from}")
    const body = id !== undefined && !inPath ? { ...entry.body, batch_id: id } : entry.body
    const request = asRequest(entry, body, id)
    if (request === null) {
      await setApart(
        entry,
        new ApiProblem({
          title: "Not sent",
          detail: "This entry cannot be sent as it stands. Edit it, or delete it.",
        }),
      )
      at += 1
      continue
    }
    let response: Response
    try {
      response = await fetch(request)
    } catch {
      return later()
    }
    const answer: unknown = await response.json().catch(() => undefined)
    outside = response.status === 401
    // somebody else answers in Fenwa's place (a proxy, a network's sign-in page), or Fenwa asks to wait
    if (answer === undefined || WAIT.includes(response.status)) return later()
    failures = 0
    if (response.ok) {
      const tx = db.transaction(["entries", "answers"], "readwrite")
      await Promise.all([
        tx.objectStore("answers").put({ key: entry.key, at: Date.now(), answer }),
        tx.objectStore("entries").delete(entry.n ?? 0),
        tx.done,
      ])
      arrivals += 1
    } else {
      await setApart(entry, new ApiProblem(answer as ProblemBody))
      at += 1
    }
    await refresh()
  }
}

function asRequest(
  entry: Entry,
  body: Record<string, unknown>,
  id: number | undefined,
): Request | null {
  try {
    const url = new URL(entry.path.replace("{from}", String(id)), window.location.origin)
    return new Request(url, {
      method: "POST",
      headers: {
        "content-type": entry.blob ? "application/octet-stream" : "application/json",
        "idempotency-key": entry.key,
      },
      body: entry.blob ?? JSON.stringify(body),
      signal: AbortSignal.timeout(entry.blob ? PHOTO_PATIENCE_MS : PATIENCE_MS),
    })
  } catch {
    return null
  }
}

/** Kept beside the others with what was wrong with it: they go on, and it waits for a hand. */
async function setApart(entry: Entry, problem: ApiProblem) {
  refusals.set(entry.key, problem)
  await (await kept()).put("entries", { ...entry, problem: problem.message })
  await refresh()
}

function later() {
  if (pages > 0)
    timer = setTimeout(() => void send(), AGAIN_MS[Math.min(failures, AGAIN_MS.length - 1)])
  failures += 1
  listeners.forEach((l) => l())
}

/** Take a write out before it was sent. */
export async function drop(key: string) {
  const db = await kept()
  const n = await db.getKeyFromIndex("entries", "key", key)
  if (n !== undefined) await db.delete("entries", n)
  await refresh()
}

/** Take a write back: what waits is dropped and null given; what has arrived is answered for. */
export async function takeBack(key: string): Promise<unknown> {
  await sending
  const found = await (await kept()).get("answers", key)
  if (found) return found.answer
  await drop(key)
  return null
}

/** What Fenwa answered to a write; null: not yet. */
export const answerTo = async (key: string): Promise<unknown> =>
  (await (await kept()).get("answers", key))?.answer ?? null

/** Send what was set apart once more, as it stands or changed. Its key stays: whatever happened, it is stored once. */
export async function sendAgain(key: string, changes: Record<string, unknown> = {}) {
  const db = await kept()
  const found = await db.getFromIndex("entries", "key", key)
  if (!found) return
  const mended = { ...found, body: { ...found.body, ...changes } }
  delete mended.problem
  await db.put("entries", mended)
  refusals.delete(key)
  await sending
  await send()
}

/** What a waiting entry waits for beside the line: a can that was set apart, or that was deleted. */
export function heldBy(entry: Entry): "" | "set apart" | "deleted" {
  if (!entry.from || entry.problem || answered.has(entry.from)) return ""
  const can = entries.find((e) => e.key === entry.from)
  return can === undefined ? "deleted" : can.problem || heldBy(can) ? "set apart" : ""
}

/** Send what an earlier visit left, forget old answers, and go on whenever the line may be back. */
export function start() {
  const again = () => void send()
  pages += 1
  window.addEventListener("online", again)
  document.addEventListener("visibilitychange", again)
  void kept().then(async (db) => {
    const old = (await db.getAll("answers")).filter((a) => a.at < Date.now() - ANSWERS_KEPT_MS)
    await Promise.all(old.map((a) => db.delete("answers", a.key)))
    await send()
  })
  return () => {
    pages -= 1
    window.removeEventListener("online", again)
    document.removeEventListener("visibilitychange", again)
  }
}

/** A walk through a round, kept so that it goes on where it was. */
export const loadWalk = async <T>(name: string) =>
  (await (await kept()).get("walks", name)) as T | undefined
export const keepWalk = async (name: string, walk: unknown) =>
  void (walk === null
    ? await (await kept()).delete("walks", name)
    : await (await kept()).put("walks", walk, name))
