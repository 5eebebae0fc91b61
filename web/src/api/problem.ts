// A refusal of the server in its own words (RFC 9457).
export type ProblemBody = {
  title?: string
  status?: number
  detail?: string
  code?: string
  errors?: { pointer: string; detail: string }[]
  facts?: Record<string, unknown>
}

export class ApiProblem extends Error {
  readonly body: ProblemBody
  constructor(body: ProblemBody) {
    super(body.detail ?? "Something broke. Nothing was stored.")
    this.body = body
  }

  /** Of an edit on an old state: what stands now of the fields that were changed elsewhere too. */
  now(): Record<string, unknown> {
    const now = this.body.code === "changed-elsewhere" ? this.body.facts?.["now"] : undefined
    return (now ?? {}) as Record<string, unknown>
  }

  /** Sentences by field name, from pointers such as /value. */
  fields(): Record<string, string> {
    return Object.fromEntries(
      (this.body.errors ?? []).map((e) => [
        e.pointer.split("/").filter(Boolean).at(-1) ?? "",
        e.detail,
      ]),
    )
  }
}
