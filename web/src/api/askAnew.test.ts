import { QueryClient, QueryObserver } from "@tanstack/react-query"
import { expect, it } from "vitest"
import { askAnew } from "./askAnew"

it("does not wait for what was asked before the write, even where nothing is shown yet", async () => {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const answers: ((said: string) => void)[] = []
  const observer = new QueryObserver(queries, {
    queryKey: ["flush"],
    queryFn: () => new Promise<string>((answer) => answers.push(answer)),
  })
  const off = observer.subscribe(() => undefined)
  const asked = askAnew(queries)
  await Promise.resolve()
  await expect.poll(() => answers.length).toBe(2)
  answers[0]?.("read before the write")
  answers[1]?.("read after it")
  await asked
  expect(observer.getCurrentResult().data).toBe("read after it")
  off()
})

it("leaves alone what is not meant", async () => {
  const queries = new QueryClient()
  queries.setQueryData(["pots", 1], "gone")
  queries.setQueryData(["round"], "here")
  await askAnew(queries, { predicate: (q) => q.queryKey[0] !== "pots" })
  expect(queries.getQueryState(["pots", 1])?.isInvalidated).toBe(false)
  expect(queries.getQueryState(["round"])?.isInvalidated).toBe(true)
})
