import { useState } from "react"
import type { Photo, Point } from "./queries"
import type { Mode } from "./Tapped"

const MOST_RIM = 2

/** Taps on a photo, by what they are for; the scale it already has to begin with. */
export function useTaps(photo: Photo) {
  const [mode, setMode] = useState<Mode>(photo.rim ? "midrib" : "rim")
  const [shown, setShown] = useState(1000)
  const [known, setKnown] = useState(photo.rim ? String(photo.rim.known_mm) : "")
  const [points, setPoints] = useState<Record<Mode, Point[]>>({
    rim: photo.rim ? [photo.rim.first, photo.rim.second] : [],
    midrib: [],
    outline: [],
  })
  const set = (to: Point[]) => setPoints({ ...points, [mode]: to })
  const tap = (p: Point, shown_px: number) => {
    setShown(shown_px)
    const was = points[mode]
    const full = mode === "rim" && was.length >= MOST_RIM
    const now = full ? [p] : [...was, p]
    set(now)
    if (mode === "rim" && now.length === MOST_RIM) setMode("midrib")
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
