import { useState } from "react"
import type { Photo, Point } from "./queries"
import type { Mode } from "./Tapped"

const MOST: Partial<Record<Mode, number>> = { rim: 2, grey: 1 }

/** Taps on a photo, by what they are for; the scale it already has to begin with. */
export function useTaps(photo: Photo) {
  const [mode, setMode] = useState<Mode>(photo.rim ? "midrib" : "rim")
  const [shown, setShown] = useState(1000)
  const [known, setKnown] = useState(photo.rim ? String(photo.rim.known_mm) : "")
  const [points, setPoints] = useState<Record<Mode, Point[]>>({
    rim: photo.rim ? [photo.rim.first, photo.rim.second] : [],
    midrib: [],
    outline: [],
    grey: [],
  })
  const set = (to: Point[]) => setPoints({ ...points, [mode]: to })
  const tap = (p: Point, shown_px: number) => {
    setShown(shown_px)
    const was = points[mode]
    const full = was.length >= (MOST[mode] ?? Infinity)
    const now = full ? [p] : [...was, p]
    set(now)
    if (mode === "rim" && now.length === MOST.rim) setMode("midrib")
    if (mode === "grey") setMode("outline")
  }
  return {
    ...points,
    mode,
    setMode,
    shown,
    known,
    setKnown,
    tap,
    back: () => set(points[mode].slice(0, -1)),
    clear: () => set([]),
  }
}
export type Taps = ReturnType<typeof useTaps>
