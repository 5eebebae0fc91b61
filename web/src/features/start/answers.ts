// The three answers as they are given, and what the server draws of them.
import { keepPreviousData, useQuery } from "@tanstack/react-query"
import { answer, client, type Schemas } from "../../api/client"
import type { ApiProblem } from "../../api/problem"
import { useSettled } from "../../ui/useLiveForm"

export type Answers = Omit<Schemas["StartIn"], "waters"> & {
  lines: Schemas["StartLine"][]
  waters: (Omit<Schemas["StartWater"], "unit"> & { unit: Schemas["StartWater"]["unit"] | null })[]
  measures: Schemas["StartIn"]["measures"] & string[]
  strip: boolean
}
export type Drawn = Schemas["Drawn"]
export type Change = (change: Partial<Answers>) => void

export const NOTHING: Answers = {
  lines: [],
  waters: [],
  measures: [],
  strip: false,
  place: "Home",
  hemisphere: "north",
}

/** The unit chosen; until one is, that of the pen at hand. */
export const unitOf = (w: Answers["waters"][number], measures: Answers["measures"]) =>
  w.unit ?? (measures.includes("ppm pen") && !measures.includes("EC pen") ? "ppm" : "µS/cm")

export const sent = ({ lines, waters, measures, place, hemisphere }: Answers) => ({
  lines,
  waters: waters.map((w) => ({ ...w, unit: unitOf(w, measures), value: w.value || null })),
  measures,
  place,
  hemisphere,
})

/** What the answers say so far; drawn anew as soon as they stand still. */
export function useDrawn(answers: Answers) {
  const text = useSettled(JSON.stringify(sent(answers)), 200)
  return useQuery<Drawn, ApiProblem>({
    queryKey: ["live", "start", text],
    queryFn: () =>
      answer(
        client.POST("/api/start/drawn", { body: JSON.parse(text) as ReturnType<typeof sent> }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })
}
