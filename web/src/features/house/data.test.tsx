import { fireEvent, screen, waitFor } from "@testing-library/react"
import { describe, expect, it } from "vitest"
import { serve, SETTINGS, show } from "../../testing/harness.test"
import { type Backup, type Data, type Preview, size } from "./queries"
import { YourData } from "./YourData"

const backup = (name: string, age_h: number, why = "daily"): Backup => ({
  name,
  at: "2026-11-22T07:00:00",
  age_h,
  age: `${age_h} hours ago`,
  why,
  bytes: 5_600_000,
  schema_: "0012",
})

const data = (more: Partial<Data> = {}): Data => ({
  database: "/home/ansa/fenwa.sqlite",
  database_bytes: 5_600_000,
  photos_bytes: 1_200_000,
  folder: "/home/ansa/fenwa.backups",
  free_bytes: 80_000_000_000,
  backups: [backup("one", 3, "at a start"), backup("two", 30)],
  warning: "",
  sentence: "Last backup 3 hours ago, read back and whole.",
  ...more,
})

const seen = (more: Partial<Preview> = {}): Preview => ({
  becomes: false,
  tables: [],
  conflicts: [],
  photos_new: 0,
  photos_missing: 0,
  anything: true,
  sentence: "3 rows are new, 40 are here already. None is in conflict.",
  ...more,
})

const conflict = {
  table: "place",
  key: "1",
  words: "Cold house",
  fields: [{ name: "name", mine: "Cold house", theirs: "Signal room" }],
}

const chosen = (container: HTMLElement) => {
  const input = container.querySelector<HTMLInputElement>("input[type=file]")
  if (!input) throw new Error("no file can be chosen")
  fireEvent.change(input, { target: { files: [new File(["PK"], "all.zip")] } })
}

describe("where the data are", () => {
  it("tells age, sizes and folders, and draws how far back one can go", () => {
    serve({ "GET /api/settings": { body: SETTINGS } })
    show(<YourData data={data()} />)
    expect(screen.getByText(/Last backup 3 hours ago/)).toBeTruthy()
    expect(screen.getByText(/5\.6 MB; photos beside it 1\.2 MB/).textContent).toContain(
      "80 GB free",
    )
    expect(
      screen.getByRole("img", { name: "Backups: 3 hours ago, at a start; 30 hours ago, daily" }),
    ).toBeTruthy()
  })

  it("warns where the server warns, and offers no restore without a backup", () => {
    serve({ "GET /api/settings": { body: SETTINGS } })
    show(<YourData data={data({ backups: [], warning: "There is no backup yet. Make one." })} />)
    expect(screen.getByText("There is no backup yet. Make one.")).toBeTruthy()
    expect(screen.queryByRole("button", { name: /Restore/ })).toBeNull()
    expect(screen.getByRole("img", { name: "Backups: none" })).toBeTruthy()
  })

  it("says why a backup could not be made", async () => {
    serve({
      "GET /api/settings": { body: SETTINGS },
      "POST /api/backups": { status: 409, body: { detail: "The disk is full.", errors: [] } },
    })
    show(<YourData data={data()} />)
    fireEvent.click(screen.getByRole("button", { name: "Back up now" }))
    expect((await screen.findByRole("alert")).textContent).toContain("The disk is full.")
  })

  it("restores only when asked twice, and the one that was asked for", async () => {
    const sent = serve({
      "GET /api/settings": { body: SETTINGS },
      "POST /api/backups/two/restore": {
        body: { restored: "two", before: "three", sentence: "The collection is as it was then." },
      },
    })
    show(<YourData data={data()} />)
    fireEvent.click(screen.getByRole("button", { name: "Restore one of 2" }))
    fireEvent.click(screen.getByRole("button", { name: /Restore the backup of 30 hours ago/ }))
    fireEvent.click(screen.getByRole("button", { name: "Cancel" }))
    fireEvent.click(screen.getByRole("button", { name: /Restore the backup of 30 hours ago/ }))
    expect(sent.filter((s) => s.method === "POST")).toEqual([])
    fireEvent.click(screen.getByRole("button", { name: "Restore" }))
    await waitFor(() => expect(sent.filter((s) => s.method === "POST")).toHaveLength(1))
  })

  it.each([
    [900, "0.9 kB"],
    [5_600_000, "5.6 MB"],
    [80_000_000_000, "80 GB"],
  ])("writes %d bytes as %s", (bytes, words) => expect(size(bytes)).toBe(words))
})

describe("an import", () => {
  it("shows what it would bring before anything is stored, and is left by Cancel", async () => {
    const sent = serve({
      "GET /api/settings": { body: SETTINGS },
      "POST /api/archive/preview": { body: seen({ photos_new: 2 }) },
    })
    const { container } = show(<YourData data={data()} />)
    chosen(container)
    expect((await screen.findByText(/3 rows are new/)).textContent).toContain(
      "2 photos come with it.",
    )
    fireEvent.click(screen.getByRole("button", { name: "Cancel" }))
    expect(screen.queryByText(/3 rows are new/)).toBeNull()
    expect(sent.map((s) => s.path)).not.toContain("/api/archive/import")
  })

  it("lays conflicts side by side and sends what was chosen", async () => {
    const sent = serve({
      "GET /api/settings": { body: SETTINGS },
      "POST /api/archive/preview": { body: seen({ conflicts: [conflict] }) },
      "POST /api/archive/import": {
        body: { written: 1, photos: 0, before: "b", sentence: "1 rows imported." },
      },
    })
    const { container } = show(<YourData data={data()} />)
    chosen(container)
    expect(await screen.findByRole("cell", { name: "Signal room" })).toBeTruthy()
    fireEvent.change(screen.getByRole("combobox", { name: "Rows in conflict" }), {
      target: { value: "theirs" },
    })
    fireEvent.click(screen.getByRole("button", { name: "Import" }))
    await waitFor(() =>
      expect(sent.some((s) => s.path.startsWith("/api/archive/import"))).toBe(true),
    )
    await waitFor(() => expect(screen.queryByRole("cell", { name: "Signal room" })).toBeNull())
  })

  it("offers no import where nothing would be stored, or the file was refused", async () => {
    const refused = "The file: is cut or no zip. Nothing was imported; export it again."
    let status = 200
    serve({
      "GET /api/settings": { body: SETTINGS },
      "POST /api/archive/preview": () =>
        status === 200
          ? { body: seen({ anything: false, sentence: "0 rows are new." }) }
          : { status, body: { detail: refused, errors: [] } },
    })
    const { container } = show(<YourData data={data()} />)
    chosen(container)
    expect(await screen.findByText(/0 rows are new/)).toBeTruthy()
    expect(screen.queryByRole("button", { name: "Import" })).toBeNull()
    status = 422
    chosen(container)
    expect((await screen.findByRole("alert")).textContent).toContain(refused)
    expect(screen.queryByRole("button", { name: "Import" })).toBeNull()
  })
})
