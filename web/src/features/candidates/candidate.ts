import type { Schemas } from "../../api/client"

type Span = readonly number[] | null
export type Judged = Omit<Schemas["HomeVerdict"], "aspects"> & {
  aspects: (Omit<Schemas["Aspect"], "asks" | "has"> & { asks?: Span; has?: Span })[]
}
export type Candidate = Omit<Schemas["CandidateOut"], "judged"> & { judged: Judged }
